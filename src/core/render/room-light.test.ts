import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { luminance } from '../finishes/colour';
import { IDENTITY, MeshBuilder, type Mesh } from '../geometry/mesh';
import { insideRegion } from '../geometry/polygon';
import { lathe } from '../geometry/shapes';
import { unit3, type Vec3 } from '../geometry/vec';
import { deriveModel } from '../model/derive';
import type { Model } from '../model/model';
import { newOpening } from '../project/opening-defaults';
import { emptyProject, type Project } from '../project/schema';
import { box, draw, edit } from '../testing/drafting';
import { prepareScene } from './prepared';
import { gather, gatheringScene, illuminanceFrom, lightAt, probesIn, roomLight, type Gathered } from './room-light';
import { diffuse, SceneBuilder } from './scene';

const WAYS: Vec3[] = Array.from({ length: 4000 }, (_, i) => {
  const z = 1 - (2 * i + 1) / 4000;
  const r = Math.sqrt(1 - z * z);
  return { x: r * Math.cos(i * 2.399963), y: r * Math.sin(i * 2.399963), z };
});

/** The nine terms of a field of radiance, by the usual real spherical harmonics: an independent way. */
function fieldOf(radiance: (d: Vec3) => number): Gathered {
  const norms = [0.282095, 0.488603, 0.488603, 0.488603, 1.092548, 1.092548, 1.092548, 0.315392, 0.546274];
  const shapes = ({ x, y, z }: Vec3): number[] => [1, x, y, z, x * y, y * z, z * x, 3 * z * z - 1, x * x - y * y];
  const out = new Float32Array(27);
  for (const d of WAYS)
    shapes(d).forEach((shape, g) => {
      // The coefficient of the harmonic, times its norm once more: terms are kept without norms.
      for (let c = 0; c < 3; c++) out[g * 3 + c] += ((4 * Math.PI * radiance(d)) / WAYS.length) * norms[g] * shape * norms[g];
    });
  return out;
}

const direction = fc
  .tuple(fc.double({ min: -1, max: 1, noNaN: true }), fc.double({ min: -1, max: 1, noNaN: true }), fc.double({ min: -1, max: 1, noNaN: true }))
  .filter(([x, y, z]) => x * x + y * y + z * z > 0.01)
  .map(([x, y, z]) => unit3({ x, y, z }));

describe('illuminance from the light about a place', () => {
  it('is π times an even field, wherever a surface is turned', () => {
    fc.assert(
      fc.property(
        direction,
        fc.double({ min: 0.1, max: 1e4, noNaN: true }),
        (n, l) =>
          void expect(
            illuminanceFrom(
              fieldOf(() => l),
              n,
            )[1] /
              (Math.PI * l),
          ).toBeCloseTo(1, 3),
      ),
    );
  });

  it('is of the light of a far lamp for a surface turned to it, and nothing much behind', () => {
    fc.assert(
      fc.property(direction, (to) => {
        // A narrow beam: all of its light arrives along one direction.
        const beam = fieldOf((d) => (d.x * to.x + d.y * to.y + d.z * to.z > 0.985 ? 100 : 0));
        const mean = beam[1];
        expect(illuminanceFrom(beam, to)[1] / (4 * Math.PI * mean)).toBeGreaterThan(0.98);
        expect(illuminanceFrom(beam, to)[1] / (4 * Math.PI * mean)).toBeLessThan(1.07);
        expect(illuminanceFrom(beam, { x: -to.x, y: -to.y, z: -to.z })[1] / (4 * Math.PI * mean)).toBeLessThan(0.08);
      }),
    );
  });

  it('is never below nothing, and over all ways a surface can be turned as much as there is', () => {
    fc.assert(
      fc.property(direction, fc.double({ min: 0, max: 8, noNaN: true }), direction, fc.double({ min: 0.1, max: 1, noNaN: true }), (a, strength, b, size) => {
        const light = fieldOf((d) => 1 + (d.x * a.x + d.y * a.y + d.z * a.z > 1 - size ? strength : 0) + (d.x * b.x + d.y * b.y + d.z * b.z > 0.8 ? 2 : 0));
        let mean = 0;
        for (const n of WAYS) {
          const [, e] = illuminanceFrom(light, n);
          expect(e).toBeGreaterThanOrEqual(0);
          mean += e / WAYS.length;
        }
        expect(mean / (Math.PI * light[1])).toBeCloseTo(1, 1.3);
      }),
      { numRuns: 30 },
    );
  });

  it('comes near the true one under half a sky, for surfaces turned to it and from it', () => {
    const half = fieldOf((d) => (d.z > 0 ? 1 : 0));
    // A plane tilted by an angle from the zenith has π (1 + cos) / 2.
    for (const angle of [0, 0.5, 1, 1.57, 2.2, 3.1]) {
      const e = illuminanceFrom(half, { x: Math.sin(angle), y: 0, z: Math.cos(angle) })[1];
      expect(Math.abs(e - (Math.PI * (1 + Math.cos(angle))) / 2)).toBeLessThan(0.07);
    }
  });
});

/** A ball seen from inside. */
const hollow = (radius: number): Mesh =>
  lathe(
    Array.from({ length: 49 }, (_, i) => [radius * Math.sin((i / 48) * Math.PI), radius * Math.cos((i / 48) * Math.PI)] as const),
    { segments: 96 },
  );

describe('gathered light', () => {
  it('is what the walls of a closed room send on of a lamp, but not the lamp itself', () => {
    for (const rho of [0.3, 0.7]) {
      const builder = new SceneBuilder();
      builder.mesh(hollow(3), IDENTITY, builder.material(diffuse([rho, rho, rho])));
      const lamp = new MeshBuilder().box(-0.1, -0.1, -0.1, 0.1, 0.1, 0.1).build();
      const flux = 5000;
      const area = 6 * 0.04;
      const emission = flux / (Math.PI * area);
      const glow = builder.material({ ...diffuse([0, 0, 0]), emission: [emission, emission, emission], lamp: 0 });
      const { first, count } = builder.mesh(lamp, IDENTITY, glow);
      builder.light(first, count, [emission, emission, emission], flux);
      const places = [-1, 0, 1].flatMap((x) => [-1, 0, 1].map((y) => ({ x, y, z: -1 })));
      const mean = gather(prepareScene(builder.build(null)), places, 4, 600).reduce((sum, g) => sum + luminance([g[0], g[1], g[2]]) / places.length, 0);
      // An integrating sphere: once reflected, light is even on all of its wall. What the wall is lit by straight is not: it is the mean over all places.
      const expected = ((flux / (4 * Math.PI * 9)) * rho) / (1 - rho) / Math.PI;
      expect(mean / expected).toBeGreaterThan(0.93);
      expect(mean / expected).toBeLessThan(1.07);
    }
  });

  it('leans towards a window', () => {
    const model = room();
    const [g] = gather(gatheringScene(model), [{ x: 3, y: 2, z: 1.2 }], 2, 2000);
    // The window is in the wall towards −y.
    expect(luminance([g[6], g[7], g[8]])).toBeLessThan(-0.3 * luminance([g[0], g[1], g[2]]));
  });
});

/** A room with a large window in its lower wall, and a dark one beside it behind a thin wall. */
function house(): Project {
  const project = draw(box(8, 4), [
    [6, 0],
    [6, 4],
  ]);
  const wall = Object.values(project.walls).find((w) => {
    const [a, b] = [project.corners[w.start], project.corners[w.end]];
    return a.y === 0 && b.y === 0 && Math.min(a.x, b.x) === 0;
  })!;
  return edit(project, 'opening.add', newOpening(project, { id: 'window', wall: wall.id, kind: 'window', at: 3, width: 2, height: 1.4, sill: 0.8 }));
}
const room = (): Model => deriveModel(house());

describe('light laid out in the rooms of a house', () => {
  const model = room();
  const probes = probesIn(model);
  const rooms = [...model.shell.rooms.values()].sort((a, b) => b.area - a.area);

  it('is gathered within every room, none farther than a step from the next', () => {
    expect(rooms).toHaveLength(2);
    for (const { id, region, height } of rooms) {
      const own = probes.filter((p) => p.room === id);
      expect(own.length).toBeGreaterThan(8);
      for (const { at } of own) {
        expect(insideRegion(at, region)).toBe(true);
        expect(at.z).toBeGreaterThan(0.2);
        expect(at.z).toBeLessThan(height - 0.2);
        const nearest = Math.min(...own.filter((o) => o.at !== at).map((o) => Math.hypot(o.at.x - at.x, o.at.y - at.y, o.at.z - at.z)));
        expect(nearest).toBeLessThan(1);
      }
    }
  });

  it('keeps to its room: a thin wall parts bright from dark', () => {
    const [bright, dark] = rooms;
    const given = probes.map(({ room: id }) => Float32Array.from({ length: 27 }, (_, i) => (i < 3 ? (id === bright.id ? 100 : 1) : 0)));
    const light = roomLight(model, probes, given)!;
    for (const z of [0.3, 1.2, 2.2])
      for (const y of [0.5, 2, 3.5]) {
        // As surfaces look it up: 0.3 m before them, on either side of a wall of 0.1 m about x = 6.
        expect(lightAt(light, { x: 5.95 - 0.3, y, z })![0]).toBeCloseTo(100, 1);
        expect(lightAt(light, { x: 6.05 + 0.3, y, z })![0]).toBeCloseTo(1, 1);
      }
    expect(dark.area).toBeLessThan(bright.area);
    // In the open it says nothing.
    expect(lightAt(light, { x: -2, y: 2, z: 1 })).toBeNull();
    expect(lightAt(light, { x: 3, y: 2, z: 9 })).toBeNull();
  });

  it('passes over a probe that is shut in a cabinet', () => {
    const own = probes.filter((p) => p.room === rooms[0].id);
    const shut = own[own.length >> 1];
    const given = probes.map((p) => Float32Array.from({ length: 27 }, (_, i) => (i < 3 ? (p === shut ? 0.01 : 50) : 0)));
    const light = roomLight(model, probes, given)!;
    expect(lightAt(light, shut.at)![0]).toBeCloseTo(50, 1);
  });

  it('is brighter by the window than away from it, and dark without one', () => {
    const given = gather(
      gatheringScene(model),
      probes.map((p) => p.at),
      1,
      128,
    );
    const light = roomLight(model, probes, given)!;
    const at = (x: number, y: number): number => luminance(illuminanceFrom(lightAt(light, { x, y, z: 0.9 })!, { x: 0, y: 0, z: 1 }));
    expect(at(3, 0.9)).toBeGreaterThan(1.5 * at(3, 3.4));
    expect(at(3, 3.4)).toBeGreaterThan(20 * at(7, 2));
  });

  it('is not there without rooms', () => {
    expect(roomLight(deriveModel(emptyProject('p', 'P')), [], [])).toBeNull();
  });
});
