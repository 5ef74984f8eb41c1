import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deriveModel } from '../../model/derive';
import type { Patch, Project } from '../../project/schema';
import { edit, house } from '../../testing/drafting';
import { draggedHandle, handlesOf, movedPatch } from './patch-handles';

const seed = Number(process.env.FC_SEED ?? 7);
const bare = house([
  [0, 0],
  [4, 0],
  [4, 3],
  [0, 3],
]);
const facesOf = (p: Project) => deriveModel(p).shell.levels[0].faces.filter((f) => f.kind === 'wall' && f.room);
const FACES = facesOf(bare);

/** A patch on one of the four walls; what it comes to lie on is told by deriving it. */
const on = (wall: number, shape: Patch['shape']): Patch => {
  const { side, room } = FACES[wall];
  return {
    id: 'patch-1',
    name: 'Patch 1',
    order: 0,
    finish: 'tile.square-white',
    panels: null,
    on: { kind: 'wall', room, wall: side!.wall, side: side!.side },
    shape,
  };
};
const boundsOf = (patch: Patch, wall: number): number[] => {
  const address = FACES[wall].address;
  const face = facesOf(edit(bare, 'patch.put', { patches: [patch] })).find((f) => f.address === address)!;
  const points = face.patches[0].regions.flatMap((r) => r.outer);
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
};
const near = (a: readonly number[], b: readonly number[]): void => a.forEach((v, i) => expect(v).toBeCloseTo(b[i], 6));
const coordinate = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('what a patch is taken hold of by', () => {
  it('are the corners of what shows of a rectangle, on every wall and side', () => {
    for (let wall = 0; wall < 4; wall++) {
      const patch = on(wall, { kind: 'rectangle', at: 1.6, base: 0.9, width: 1, height: 0.6 });
      const corners = handlesOf(patch, FACES[wall]).map((h) => h.at);
      near([corners[0].x, corners[0].y, corners[2].x, corners[2].y], boundsOf(patch, wall));
    }
  });

  it('a dragged corner of a rectangle comes where it is dragged, the opposite one stays', () => {
    fc.assert(
      fc.property(fc.nat(3), fc.nat(3), coordinate(0.3, 2.3), coordinate(0.1, 2.3), (wall, corner, x, y) => {
        const patch = on(wall, { kind: 'rectangle', at: 1.5, base: 1, width: 0.8, height: 0.5 });
        const still = handlesOf(patch, FACES[wall])[(corner + 2) % 4].at;
        fc.pre(Math.abs(x - still.x) > 0.02 && Math.abs(y - still.y) > 0.02);
        const bounds = boundsOf(draggedHandle(patch, FACES[wall], corner, { x, y }), wall);
        near(bounds, [Math.min(x, still.x), Math.min(y, still.y), Math.max(x, still.x), Math.max(y, still.y)]);
      }),
      { numRuns: 24, seed },
    );
  });

  it('a rectangle never gets thinner than ten millimetres', () => {
    const patch = on(0, { kind: 'rectangle', at: 1.5, base: 1, width: 0.8, height: 0.5 });
    const still = handlesOf(patch, FACES[0])[0].at;
    const [x0, y0, x1, y1] = boundsOf(draggedHandle(patch, FACES[0], 2, still), 0);
    near([x1 - x0, y1 - y0], [0.01, 0.01]);
  });

  it('the edges of a band go up and down and never cross', () => {
    const band = on(1, { kind: 'band', from: 0.4, to: 0.9 });
    const [, low, , high] = boundsOf(draggedHandle(band, FACES[1], 0, { x: 1, y: 0.2 }), 1);
    near([low, high], [0.2, 0.9]);
    expect(draggedHandle(band, FACES[1], 1, { x: 0, y: 0.1 }).shape).toMatchObject({ from: 0.4, to: expect.closeTo(0.41, 9) as number });
    expect(draggedHandle(band, FACES[1], 0, { x: 0, y: 2 }).shape).toMatchObject({ from: expect.closeTo(0.89, 9) as number, to: 0.9 });
  });

  it('a corner of an outline comes where it is dragged; middles of its edges add one', () => {
    for (let wall = 0; wall < 4; wall++) {
      const patch = on(wall, {
        kind: 'polygon',
        points: [
          { x: 1, y: 0.5 },
          { x: 2, y: 0.5 },
          { x: 1.5, y: 1.5 },
        ],
      });
      const handles = handlesOf(patch, FACES[wall]);
      expect(handles.map((h) => h.adds)).toEqual([false, false, false, true, true, true]);
      const up = draggedHandle(patch, FACES[wall], 2, { x: handles[2].at.x, y: 2 });
      expect(boundsOf(up, wall)[3]).toBeCloseTo(2, 6);
      const more = draggedHandle(patch, FACES[wall], 3, { x: handles[3].at.x, y: 0.2 });
      expect(more.shape.kind === 'polygon' && more.shape.points).toHaveLength(4);
      expect(boundsOf(more, wall)[1]).toBeCloseTo(0.2, 6);
    }
  });

  it('moves as a whole as one sees it, whichever way the wall was drawn', () => {
    for (let wall = 0; wall < 4; wall++) {
      const patch = on(wall, { kind: 'rectangle', at: 1.5, base: 0.9, width: 0.8, height: 0.6 });
      const before = boundsOf(patch, wall);
      near(boundsOf(movedPatch(patch, { x: 0.2, y: 0.1 }, FACES[wall]), wall), [before[0] + 0.2, before[1] + 0.1, before[2] + 0.2, before[3] + 0.1]);
    }
    const band = on(0, { kind: 'band', from: 0, to: 1 });
    expect(movedPatch(band, { x: 1, y: 1 }, FACES[0])).toBe(band);
  });
});
