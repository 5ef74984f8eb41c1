import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { elevationFaces } from '../drawing/elevation/unroll';
import { drawZonesUpright } from '../drawing/elevation/zones';
import { drawZones } from '../drawing/plan/zones';
import { wetFindings } from '../checks/wet';
import { totalArea } from '../geometry/polygon';
import { deriveModel } from '../model/derive';
import type { Piece, Project } from '../project/schema';
import { pieceFrom, stockCard } from '../stock/stock';
import { edit, house } from '../testing/drafting';
import { allZones, zoneOf, zonesOf } from './zones';

/** A room of 4 × 3 m inside, its lower left corner at the origin. */
const bare = house([
  [-0.15, -0.15],
  [4.15, -0.15],
  [4.15, 3.15],
  [-0.15, 3.15],
]);
const piece = (card: string, id: string, x: number, y: number, own: Partial<Piece> = {}): Piece => ({
  ...pieceFrom(stockCard(card)!, id, bare.levels.ground, { x, y }),
  name: id,
  ...own,
});
const withPieces = (...pieces: Piece[]): Project => edit(bare, 'piece.add', { pieces });
/** The side of a wall that looks into the room. */
const faceSide = (wall: string, model: ReturnType<typeof deriveModel>): 'left' | 'right' =>
  [...model.shell.rooms.values()][0].sides.find((s) => s.wall === wall)!.side;
/** Eight chords for a quarter of a circle hold a little less than it. */
const QUARTER = (32 / 2) * Math.sin((2 * Math.PI) / 32) * 0.25;

describe('electrical zones', () => {
  it('lie over a tray and 600 beyond it, as far as the walls', () => {
    // In the corner: two strips and a quarter of a circle.
    const corner = zonesOf(deriveModel(withPieces(piece('tray-900', 'Tray', 0.45, 2.55))), 'Tray')!;
    // Its own corners are a little round.
    expect(totalArea(corner.one)).toBeCloseTo(0.81, 3);
    expect(totalArea(corner.two)).toBeCloseTo(2 * 0.9 * 0.6 + QUARTER * 0.36, 2);
    expect([corner.rim, corner.top]).toEqual([expect.closeTo(0.04, 9), expect.closeTo(2.25, 9)]);
    // In the middle of the room it goes all round, whichever way it is turned.
    const free = (rotation: number) => totalArea(zonesOf(deriveModel(withPieces(piece('tray-900', 'Tray', 2, 1.5, { rotation }))), 'Tray')!.two);
    // Its corners are round by 12: its edge is so much shorter.
    expect(free(0)).toBeCloseTo((4 * 0.9 - (8 - 2 * Math.PI) * 0.012) * 0.6 + 4 * QUARTER * 0.36, 2.5);
    expect(free(0.6)).toBeCloseTo(free(0), 5);
    // A shower that is a square has them exactly.
    const square = zonesOf(deriveModel(withPieces(piece('shower', 'Shower', 2, 1.5))), 'Shower')!;
    expect(totalArea(square.one)).toBeCloseTo(0.81, 9);
    expect(totalArea(square.two)).toBeCloseTo(4 * 0.9 * 0.6 + 4 * QUARTER * 0.36, 6);
    // Round the arc of a quadrant they are as far away: less than of a square, whichever way it is mirrored.
    const round = (own: Partial<Piece>) => zonesOf(deriveModel(withPieces(piece('tray-quadrant', 'Tray', 2, 1.5, own))), 'Tray')!;
    const r = 0.9 * 0.61;
    expect(totalArea(round({}).one)).toBeCloseTo(0.81 - r * r * (1 - Math.PI / 4), 2);
    expect(totalArea(round({}).two)).toBeCloseTo(4 * 0.9 * 0.6 - 2 * r * 0.6 + (Math.PI / 4) * ((r + 0.6) ** 2 - r * r) + 3 * QUARTER * 0.36, 1.5);
    expect(totalArea(round({ mirrored: true }).two)).toBeCloseTo(totalArea(round({}).two), 5);
    const middle = (z: ReturnType<typeof round>): number => z.one[0].outer.reduce((sum, p) => sum + p.x / z.one[0].outer.length, 0);
    expect(middle(round({})) - 2).toBeCloseTo(2 - middle(round({ mirrored: true })), 5);
    expect(zonesOf(deriveModel(withPieces(piece('wc', 'WC', 2, 1.5))), 'WC')).toBeNull();
  });

  it('tell what stands in them by its outline and its height', () => {
    const model = deriveModel(withPieces(piece('bath', 'Bath', 0.85, 2.65)));
    const [zones] = allZones(model);
    const at = (x: number, y: number, foot: number) =>
      zoneOf(
        zones,
        [
          [0, 0],
          [0.1, 0],
          [0.1, 0.1],
          [0, 0.1],
        ].map(([dx, dy]) => ({ x: x + dx, y: y + dy })),
        foot,
      );
    expect(at(0.8, 2.6, 0.1)).toBe(0);
    expect(at(0.8, 2.6, 1)).toBe(1);
    expect(at(0.8, 1.9, 1)).toBe(2);
    expect(at(0.8, 1.5, 1)).toBeNull();
    expect(at(0.8, 2.6, 2.3)).toBeNull();
    // Past the corner of the bath the zone is round.
    expect(at(1.7 + 0.45, 2.3 - 0.55, 1)).toBeNull();
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 3.85, noNaN: true }), fc.double({ min: 0.05, max: 2.85, noNaN: true }), (x, y) => {
        // By the distance of the nearest point of a small square from the bath, which is 1.7 × 0.7 in the corner.
        const [dx, dy] = [Math.max(0, x - 1.7), Math.max(0, 2.3 - (y + 0.1))];
        const off = Math.hypot(dx, dy);
        if (Math.abs(off - 0.6) < 0.004 || off < 0.002) return;
        expect(at(x, y, 1)).toBe(off < 0.6 ? 2 : null);
      }),
    );
  });

  it('are found for lamps and what has a plug, below 2250, the strictest of several', () => {
    const found = (...more: Piece[]): string[] => wetFindings(deriveModel(withPieces(piece('bath', 'Bath', 0.85, 2.65), ...more))).map((f) => f.message);
    expect(found(piece('wall-light', 'Lamp', 1, 2.9, { elevation: 1.6 }))).toEqual([
      'Lamp is in zone 1 of Bath: below 2250 only what is made for it is allowed there.',
    ]);
    expect(found(piece('wall-light', 'Lamp', 2.1, 2.9, { elevation: 1.6 }))[0]).toContain('zone 2 of Bath');
    expect(found(piece('wall-light', 'Lamp', 3, 2.9, { elevation: 1.6 }))).toEqual([]);
    expect(found(piece('recessed-light', 'Lamp', 1, 2.6, { elevation: 2.38 }))).toEqual([]);
    expect(found(piece('washer', 'Washer', 2.1, 2.7))[0]).toContain('Washer is in zone 2');
    expect(found(piece('tray-900', 'Tray', 2.2, 2.55), piece('wall-light', 'Lamp', 2.1, 2.9, { elevation: 1.6 }))[0]).toContain('zone 1 of Tray');
    expect(found(piece('towel-bar', 'Rail', 1, 2.9))).toEqual([]);
  });

  it('are drawn on the walls they reach: over the bath up to 2250, and 600 beside it', () => {
    const model = deriveModel(withPieces(piece('bath', 'Bath', 0.85, 2.65)));
    const zones = zonesOf(model, 'Bath')!;
    const walls = Object.keys(model.project.walls);
    const boxes = walls.map((wall) => {
      const faces = elevationFaces(model, { wall, side: faceSide(wall, model), room: zones.room }, false);
      return faces.flatMap((f) => drawZonesUpright(zones, f)).flatMap((i) => (i.kind === 'line' ? [i.points] : []));
    });
    const wide = (points: { x: number; y: number }[]): [number, number] => [points[1].x - points[0].x, points[2].y - points[1].y];
    // The long wall behind it: zone 2 beside it, zones 0 and 1 over it.
    const behind = boxes.find((b) => b.some((p) => Math.abs(wide(p)[0] - 1.7) < 0.04))!.map(wide);
    expect(behind).toEqual([
      [expect.closeTo(0.6, 1), expect.closeTo(2.25, 9)],
      [expect.closeTo(1.7, 1), expect.closeTo(0.56, 9)],
      [expect.closeTo(1.7, 1), expect.closeTo(2.25 - 0.56, 9)],
    ]);
    // The walls it does not reach have none.
    expect(boxes.filter((b) => b.length === 0)).toHaveLength(2);
  });

  it('are drawn as dashed outlines, each with its number in it', () => {
    const items = drawZones(zonesOf(deriveModel(withPieces(piece('tray-900', 'Tray', 2, 1.5))), 'Tray')!);
    expect(items.flatMap((i) => (i.kind === 'text' ? [i.text] : []))).toEqual(['zone 2', 'zones 0, 1']);
    // Zone 2 has two outlines: it lies all round.
    expect(items.filter((i) => i.kind === 'line' && i.dash)).toHaveLength(3);
  });
});
