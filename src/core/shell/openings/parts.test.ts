import { newOpening } from '../../project/opening-defaults';
import { describe, expect, it } from 'vitest';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { HERE } from '../../model/body';
import type { Opening } from '../../project/schema';
import { opened, type OpeningPart } from './derive';
import { openingParts } from './parts';
import { clearWidth, JOINERY } from './sizes';

const METRIC = { openings: {}, units: 'metric' } as const;
const opening = (set: Partial<Opening>): Opening =>
  newOpening(METRIC, {
    id: 'o',
    name: 'O',
    wall: 'w',
    kind: 'door',
    at: 2,
    width: 0.99,
    height: 2.1,
    sill: 0,
    hinge: 'start',
    swing: 'left',
    panes: { across: 2, up: 2 },
    finishes: {},
    ...set,
  });

const window = newOpening(METRIC, { id: 'o', wall: 'w', kind: 'window', at: 2 });

const extent = (mesh: Mesh, axis: number): [number, number] => {
  const values = mesh.positions.filter((_, i) => i % 3 === axis);
  return [Math.min(...values), Math.max(...values)];
};

const standing = (o: Opening, thickness = 0.3, inside: 'left' | 'right' = 'left'): OpeningPart[] =>
  openingParts({ opening: o, thickness, inside, corner: null, profile: null }).map((p) => opened(p, o.open));

/** All that goes by one name, as it stands. */
function part(o: Opening, name: string, open = 0, thickness = 0.3, inside: 'left' | 'right' = 'left'): Mesh {
  const builder = new MeshBuilder();
  for (const p of standing({ ...o, open }, thickness, inside)) if (p.part === name) for (const at of p.at ?? HERE) builder.add(p.mesh, at);
  return builder.build();
}

/** Volume by the divergence theorem: negative where a mesh is turned inside out. */
const volume = ({ positions: p, indices }: Mesh): number => {
  let sum = 0;
  for (let k = 0; k < indices.length; k += 3) {
    const [a, b, c] = [indices[k] * 3, indices[k + 1] * 3, indices[k + 2] * 3];
    sum +=
      (p[a] * (p[b + 1] * p[c + 2] - p[b + 2] * p[c + 1]) + p[a + 1] * (p[b + 2] * p[c] - p[b] * p[c + 2]) + p[a + 2] * (p[b] * p[c + 1] - p[b + 1] * p[c])) /
      6;
  }
  return sum;
};

describe('a door', () => {
  it.each([
    ['start', 'left'],
    ['start', 'right'],
    ['end', 'left'],
    ['end', 'right'],
  ] as const)('hangs at the %s and swings to the %s', (hinge, swing) => {
    const o = opening({ hinge, swing });
    const shut = part(o, 'leaf', 0);
    const open = part(o, 'leaf', 1);
    // Shut, the leaf fills the frame and lies flush with the face it opens towards.
    const [x0, x1] = extent(shut, 0);
    expect(x0).toBeGreaterThanOrEqual(-o.width / 2 + o.frame.face);
    expect(x1).toBeLessThanOrEqual(o.width / 2 - o.frame.face);
    expect(x1 - x0).toBeCloseTo(o.width - 2 * o.frame.face - 0.006, 6);
    const side = swing === 'left' ? 1 : -1;
    const [y0, y1] = extent(shut, 1);
    expect(side > 0 ? y1 : -y0).toBeCloseTo(0.15, 6);
    // Open, it stands out from the wall on the side it swings into, at the end it hangs at.
    const [oy0, oy1] = extent(open, 1);
    expect(side > 0 ? oy1 : -oy0).toBeCloseTo(0.15 + x1 - x0, 2);
    const [ox0, ox1] = extent(open, 0);
    expect(hinge === 'start' ? ox1 < 0 : ox0 > 0).toBe(true);
    for (const mesh of [shut, open]) expect(volume(mesh)).toBeGreaterThan(0);
  });

  it('is free when open by lining, stop and leaf', () => {
    for (const width of [0.686, 0.826, 0.926, 1.05]) {
      const o = opening({ width });
      const leaf = extent(part(o, 'leaf', 1), 0);
      const free = o.width / 2 - o.frame.face - JOINERY.stop - leaf[1];
      expect(clearWidth(o)).toBeCloseTo(free, 2);
    }
  });
});

describe('a window', () => {
  it('fills its hole with frame, sashes and as many panes as it is given', () => {
    const o = opening({ ...window, width: 1.8, height: 1.2, sill: 0.9, panes: { across: 3, up: 2 } });
    const frame = part(o, 'frame');
    expect(extent(frame, 0)).toEqual([expect.closeTo(-0.9), expect.closeTo(0.9)]);
    expect(extent(frame, 2)).toEqual([expect.closeTo(0.9), expect.closeTo(2.1)]);
    const glass = part(o, 'glass');
    expect(extent(glass, 0)[1]).toBeLessThan(0.9 - o.frame.face - JOINERY.sash);
    expect(volume(frame)).toBeGreaterThan(0);
    const more = part({ ...o, panes: { across: 6, up: 3 } }, 'frame');
    expect(more.indices.length).toBeGreaterThan(frame.indices.length);
  });

  it('turns its sill board to the room and its frame to the weather', () => {
    for (const inside of ['left', 'right'] as const) {
      const o = opening({ ...window, sill: 0.9, height: 1.2 });
      const sign = inside === 'left' ? 1 : -1;
      const sill = extent(part(o, 'sill', 0, 0.3, inside), 1);
      expect(sign > 0 ? sill[1] : -sill[0]).toBeCloseTo(0.15 + o.sillBoard, 6);
      const frame = extent(part(o, 'frame', 0, 0.3, inside), 1);
      expect((sign * (frame[0] + frame[1])) / 2).toBeLessThan(0);
    }
  });

  it('keeps within a thin wall', () => {
    const frame = extent(part(opening({ ...window, sill: 0.9, height: 1 }), 'frame', 0, 0.08), 1);
    expect(Math.max(-frame[0], frame[1])).toBeLessThanOrEqual(0.04 + 1e-6);
  });
});
