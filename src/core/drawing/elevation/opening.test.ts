import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { transformPoint } from '../../geometry/mesh';
import { placesOf } from '../../model/body';
import { deriveModel } from '../../model/derive';
import { newOpening } from '../../project/opening-defaults';
import { openingOutline } from '../../project/openings';
import { emptyProject, type Opening, type Project } from '../../project/schema';
import { FORMS } from '../../project/schema/openings';
import { edit, house } from '../../testing/drafting';
import { faceX } from '../../shell/wall-face';
import { openingDiagram, pieceDiagram } from '../diagram';
import { displayBounds, type DisplayItem } from '../display';
import { pieceFrom, STOCK } from '../../stock/stock';
import { drawElevation } from './elevation';
import { openingFront } from './opening';
import { elevationFaces } from './unroll';

type Line = Extract<DisplayItem, { kind: 'line' }>;
const lines = (items: readonly DisplayItem[]): Line[] => items.filter((i): i is Line => i.kind === 'line');
/** The two lines that meet where something hangs. */
const hung = (items: readonly DisplayItem[]): Line[] => lines(items).filter((l) => l.points.length === 3 && !l.closed && l.pen === 0.13);

const made = (values: Partial<Opening> & Pick<Opening, 'kind'>): Opening =>
  newOpening(emptyProject('p', 'P'), { id: 'o', name: 'O', wall: 'w', at: 2, ...values });

const ALL = (['door', 'window'] as const).flatMap((kind) => FORMS[kind].map((form) => [kind, form] as const));

describe('an opening face on', () => {
  it.each(ALL)('%s, %s: everything lies within its outline and is its own', (kind, form) => {
    for (const swing of ['left', 'right'] as const)
      for (const hinge of ['start', 'end'] as const) {
        const o = made({ kind, form, swing, hinge });
        const items = openingFront(o, { from: 'left', outside: true });
        const all = displayBounds(items)!;
        const own = displayBounds([{ kind: 'line', points: openingOutline(o), closed: true, ink: 'line', pen: 0.35, layer: 'opening' }])!;
        for (const axis of ['x', 'y'] as const) {
          expect(all.min[axis]).toBeGreaterThan(own.min[axis] - 1e-9);
          expect(all.max[axis]).toBeLessThan(own.max[axis] + 1e-9);
        }
        expect(items.every((i) => 'entity' in i && i.entity === 'o')).toBe(true);
        expect(items.length).toBeGreaterThan(3);
      }
  });

  it('has as many bars as panes, and they end on its outline however it is shaped', () => {
    const bars = (o: Opening): Line[] => lines(openingFront(o, { from: 'left', outside: true })).filter((l) => l.points.length === 2 && l.pen === 0.13);
    const square = made({ kind: 'window', form: 'fixed', width: 1.2, height: 1.2, panes: { across: 3, up: 2 } });
    expect(bars(square)).toHaveLength(3);
    const round = made({ kind: 'window', form: 'fixed', width: 1, height: 1, sill: 1, shape: { kind: 'ellipse' }, panes: { across: 4, up: 1 } });
    const r = 0.5 - round.frame.face;
    for (const { points } of bars(round)) {
      const [a, b] = points;
      // Chords of a circle, drawn with many corners.
      expect(Math.abs(a.y - b.y)).toBeCloseTo(2 * Math.sqrt(r * r - a.x * a.x), 1);
    }
    expect(bars(round)).toHaveLength(3);
  });

  it('says nothing of how a fixed light, a passage or a niche opens', () => {
    for (const o of [made({ kind: 'window', form: 'fixed' }), made({ kind: 'passage' }), made({ kind: 'niche' })])
      expect(hung(openingFront(o, { from: 'left', outside: true }))).toEqual([]);
  });

  it('is dashed where it opens away from whoever looks', () => {
    const door = made({ kind: 'door', form: 'hinged', swing: 'left' });
    const dash = (o: Opening, from: 'left' | 'right', outside: boolean): (boolean | undefined)[] =>
      hung(openingFront(o, { from, outside })).map((l) => Boolean(l.dash));
    expect([dash(door, 'left', false), dash(door, 'right', false)]).toEqual([[false], [true]]);
    // Casements open outwards, tilted lights inwards.
    const casement = made({ kind: 'window', form: 'casement', width: 0.6 });
    expect([dash(casement, 'left', true), dash(casement, 'right', false)]).toEqual([[false], [true]]);
    const tilt = made({ kind: 'window', form: 'tilt' });
    expect([dash(tilt, 'left', true), dash(tilt, 'right', false)]).toEqual([[true], [false]]);
  });

  it('hangs where the leaf of the model stays when it is opened, seen from both sides', () => {
    const bare = house([
      [0, 0],
      [4, 0],
      [4, 3],
      [0, 3],
    ]);
    const wall = Object.values(bare.walls)[0];
    for (const hinge of ['start', 'end'] as const)
      for (const swing of ['left', 'right'] as const) {
        const project: Project = edit(bare, 'opening.add', {
          ...newOpening(bare, { id: 'door', wall: wall.id, kind: 'door', form: 'hinged', at: 2, hinge, swing }),
          status: 'new',
          open: 1,
        });
        const model = deriveModel(project);
        const body = model.bodies.find((b) => b.id === 'door')!;
        const leaf = body.parts.find((p) => p.key.includes('leaf'))!;
        const [place] = placesOf(body, leaf);
        let [sum, count] = [0, 0];
        for (let k = 0; k < leaf.mesh.positions.length; k += 3) {
          sum += transformPoint(place, { x: leaf.mesh.positions[k], y: leaf.mesh.positions[k + 1], z: leaf.mesh.positions[k + 2] }).x;
          count++;
        }
        const start = project.corners[wall.start].x;
        const along = Math.abs(sum / count - start);
        for (const side of ['left', 'right'] as const) {
          const faces = elevationFaces(model, { wall: wall.id, side }, false);
          const items = drawElevation(model, faces, { scale: 0.05, named: false, units: () => null }).flatMap((g) => g.items);
          const [{ points }] = hung(items.filter((i) => i.entity === 'door'));
          const [free, apex] = points;
          const at = faces[0].x + faceX(faces[0].face.side!, along);
          expect(Math.abs(apex.x - at), `${hinge} ${swing} ${side}`).toBeLessThan(0.15);
          expect(Math.abs(free.x - at)).toBeGreaterThan(0.4);
        }
      }
  });
});

describe('a thing drawn by itself', () => {
  const frame = { width: 55, height: 30 };
  const inFrame = ({ items, scale, middle }: ReturnType<typeof pieceDiagram>): void => {
    const box = displayBounds(items)!;
    for (const [axis, size] of [
      ['x', frame.width],
      ['y', frame.height],
    ] as const) {
      expect((box.max[axis] - middle[axis]) / scale).toBeLessThan(size / 2);
      expect((middle[axis] - box.min[axis]) / scale).toBeLessThan(size / 2);
    }
  };

  it('fills its frame with its two sizes, whatever it is', () => {
    const level = Object.values(emptyProject('p', 'P').levels)[0];
    for (const item of STOCK) {
      const piece = pieceFrom(item, 'piece', level, { x: 3, y: -2 });
      const drawn = pieceDiagram(piece, frame, 'metric');
      inFrame(drawn);
      const texts = drawn.items.flatMap((i) => (i.kind === 'text' ? [i.text] : []));
      expect(texts).toEqual([String(Math.round(piece.size.width * 1000)), String(Math.round(piece.size.depth * 1000))]);
    }
  });

  it('fits an opening of any proportions', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.3, max: 8, noNaN: true }), fc.double({ min: 0.5, max: 4, noNaN: true }), fc.boolean(), (width, height, left) => {
        inFrame(openingDiagram(made({ kind: 'window', width, height, swing: left ? 'left' : 'right' }), frame, 'metric'));
      }),
      { numRuns: 100 },
    );
  });
});
