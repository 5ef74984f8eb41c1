import { describe, expect, it } from 'vitest';
import { layOut, outlinesOf } from '../../finishes/laying/layout';
import { signedArea } from '../../geometry/polygon';
import type { Vec2 } from '../../geometry/vec';
import { deriveModel } from '../../model/derive';
import type { Model } from '../../model/model';
import { newOpening } from '../../project/opening-defaults';
import type { Patch, Piece, Project } from '../../project/schema';
import { pieceFrom, stockCard } from '../../stock/stock';
import { draw, edit, house } from '../../testing/drafting';
import { displayBounds, type DisplayItem, type MarkGroup } from '../display';
import { displaySvg } from '../svg';
import { drawElevation, laidOn, laying, unitsDrawn, type ElevationOptions } from './elevation';
import { elevationFaces, placedAt, unroll, type Placed } from './unroll';

/** 1 : 50. */
const scale = 0.05;

const room = (): Project =>
  house([
    [0, 0],
    [4, 0],
    [4, 3],
    [0, 3],
  ]);

const facesOf = (model: Model): Placed[] => {
  const faces = model.shell.levels[0].faces.filter((f) => f.kind === 'wall' && f.room !== null);
  return unroll(faces, faces[0].side!.wall);
};

/** The units laid at once, as the worker lays them. */
const unitsOf = (model: Model, faces: readonly Placed[]): Map<string, Vec2[][]> =>
  new Map(
    laidOn(faces).flatMap(({ key, of }) => {
      const { laid, placing, regions } = laying(model.project, of);
      return laid.laying ? [[key, layOut(laid.laying, placing, regions).units.flatMap(outlinesOf)]] : [];
    }),
  );

function drawn(project: Project, more: Partial<ElevationOptions> = {}): { model: Model; faces: Placed[]; groups: MarkGroup[]; items: DisplayItem[] } {
  const model = deriveModel(project);
  const faces = facesOf(model);
  const units = unitsOf(model, faces);
  const groups = drawElevation(model, faces, { scale, named: true, units: (key) => units.get(key) ?? null, ...more });
  return { model, faces, groups, items: groups.flatMap((g) => g.items) };
}

const texts = (items: readonly DisplayItem[]): string[] => items.flatMap((i) => (i.kind === 'text' ? [i.text] : []));

describe('the walls of a room unrolled', () => {
  it('stand side by side without touching, each as long as it is and as high', () => {
    const { faces, items } = drawn(room());
    expect(faces).toHaveLength(4);
    faces.slice(1).forEach((f, i) => expect(f.x).toBeGreaterThan(faces[i].x + faces[i].face.side!.length));
    const rings = items.flatMap((i) => (i.kind === 'fill' && i.layer === 'face' ? i.rings : []));
    expect(rings.map((r) => Math.abs(signedArea(r)))).toEqual(faces.map(({ face: { side } }) => expect.closeTo(side!.length * side!.top[0].y, 6)));
    // As long as what the figure says.
    expect(texts(items)).toHaveLength(8);
    expect(placedAt(faces, faces[2].x + 0.1)).toBe(faces[2]);
    expect(placedAt(faces, 1e6)).toBe(faces[3]);
    expect(placedAt(faces, -1)).toBe(faces[0]);
  });

  it('write their lengths and names clear of the wall at any scale, in millimetres of the paper', () => {
    for (const scale of [0.01, 0.05, 0.2]) {
      const { items } = drawn(room(), { scale });
      const heights = items.flatMap((i) => (i.kind === 'text' ? [i.at.y] : []));
      heights.forEach((y) => expect(y).toBeCloseTo(-6 * scale, 9));
    }
    expect(texts(drawn(room(), { named: false }).items)).toHaveLength(4);
  });

  it('show the very units that are counted, of a face and of a patch in front of it', () => {
    const bare = room();
    const { faces } = drawn(bare);
    const { wall, side } = faces[0].face.side!;
    const tiled = edit(bare, 'finish.apply', { targets: [{ kind: 'wall', room: faces[0].face.room, wall, side }], finish: 'tile.square-white' });
    const patch: Patch = {
      id: 'splash',
      name: 'Splashback',
      on: { kind: 'wall', room: faces[1].face.room, wall: faces[1].face.side!.wall, side: faces[1].face.side!.side },
      shape: { kind: 'band', from: 0.9, to: 1.5 },
      order: 1,
      finish: 'tile.square-white',
      panels: null,
    };
    const all = drawn(edit(tiled, 'patch.put', { patches: [patch] }), { scale: 0.01 });
    for (const [key, area] of [
      [`face ${faces[0].face.address}`, null],
      ['patch splash', faces[1].face.side!.length * 0.6],
    ] as const) {
      const group = all.groups.find((g) => g.key.startsWith(key))!;
      const lines = group.items.find((i) => i.kind === 'lines' && i.ink === 'joint');
      expect(lines).toBeDefined();
      const sum = lines!.kind === 'lines' ? lines!.rings.reduce((s, r) => s + Math.abs(signedArea(r)), 0) : 0;
      const of = laidOn(all.faces).find((l) => l.key === group.key)!.of;
      const { laid, placing, regions } = laying(all.model.project, of);
      expect(sum).toBeCloseTo(layOut(laid.laying!, placing, regions).covered, 6);
      if (area !== null) expect(Math.abs(sum / area - 1)).toBeLessThan(0.1);
    }
    expect(all.groups.find((g) => g.key.startsWith('patch splash'))!.title).toBe('Splashback');
    // Far away they are a tone.
    const of = laidOn(all.faces)[0].of;
    expect([0.01, 0.1, 0.5].map((s) => unitsDrawn(all.model.project, of, s))).toEqual([true, true, false]);
    expect(drawn(tiled, { scale: 0.5 }).items.some((i) => i.kind === 'lines')).toBe(false);
    // More than can be told apart are a tone too.
    const square = [
      { x: 0, y: 0 },
      { x: 0.1, y: 0 },
      { x: 0.1, y: 0.1 },
    ];
    expect(drawn(tiled, { scale: 0.01, units: () => Array(6001).fill(square) }).items.some((i) => i.kind === 'lines')).toBe(false);
  });

  it('show an opening from both sides of its wall, a niche only from its own', () => {
    const bare = room();
    const { wall, side } = facesOf(deriveModel(bare))[0].face.side!;
    const made = (kind: 'window' | 'niche', swing: 'left' | 'right'): DisplayItem[] => {
      const { items } = drawn(
        edit(bare, 'opening.add', {
          ...newOpening(bare, { id: 'hole', wall, kind, at: 2, width: 1, height: 1.2, sill: 0.9, swing, status: 'new' }),
          depth: 0.1,
        }),
      );
      return items.filter((i) => i.entity === 'hole' && i.kind === 'fill');
    };
    const [window] = made('window', side);
    expect(window.kind === 'fill' && Math.abs(signedArea(window.rings[0]))).toBeCloseTo(1.2, 9);
    expect(made('niche', side)).toHaveLength(1);
    expect(made('niche', side === 'left' ? 'right' : 'left')).toHaveLength(0);
  });

  it('show what one room sees of a wall that passes two, alone or with the room’s other walls', () => {
    const two = draw(room(), [
      [2, 0],
      [2, 3],
    ]);
    const model = deriveModel(two);
    const [face, ...others] = model.shell.levels[0].faces.filter(
      (f) => f.side && f.room !== null && model.shell.levels[0].faces.some((g) => g !== f && g.side?.wall === f.side!.wall && g.side.side === f.side!.side),
    );
    const other = others.find((f) => f.side!.wall === face.side!.wall)!;
    const { wall, side } = face.side!;
    for (const { room } of [face, other]) {
      expect(elevationFaces(model, { wall, side, room }, false).map((p) => p.face.room)).toEqual([room]);
      const round = elevationFaces(model, { wall, side, room }, true);
      expect(round).toHaveLength(4);
      expect(round.every((p) => p.face.room === room)).toBe(true);
    }
    expect(elevationFaces(model, { wall, side }, false)).toHaveLength(2);
    expect(elevationFaces(model, { wall, side, room: 'gone' }, false)).toHaveLength(2);
    expect(elevationFaces(model, { wall: 'gone', side }, true)).toEqual([]);
  });

  it('is written by the same writer as a plan, filling its frame', () => {
    const { items, faces } = drawn(room());
    const svg = displaySvg(items, 400, 200);
    expect(svg.match(/<path/g)!.length).toBeGreaterThan(8);
    const box = displayBounds(items)!;
    // The ticks of the first and the last length reach 0.9 mm of the paper out.
    expect(box.max.x - box.min.x).toBeCloseTo(faces[3].x + faces[3].face.side!.length + 2 * 0.9 * scale, 9);
  });
});

describe('pieces in an elevation', () => {
  /** The same room with a picture on its back wall, a chest at that wall, and a sofa away from it. */
  const furnished = (): Project => {
    const p = room();
    const piece = (card: string, id: string, x: number, y: number, own: Partial<Piece> = {}): Piece => ({
      ...pieceFrom(stockCard(card)!, id, p.levels.ground, { x, y }),
      ...own,
    });
    return edit(p, 'piece.add', {
      pieces: [
        piece('picture', 'hung', 1.3, 2.85 - 0.015, { size: { width: 0.6, depth: 0.03, height: 0.4 }, elevation: 1.3 }),
        piece('chest', 'chest', 2.6, 2.85 - 0.25, { size: { width: 1, depth: 0.5, height: 0.8 } }),
        piece('sofa', 'sofa', 2, 1.2, { size: { width: 1.8, depth: 0.8, height: 0.8 } }),
      ],
    });
  };
  const backWall = (p: Project): string => Object.values(p.walls).find((w) => p.corners[w.start].y > 2 && p.corners[w.end].y > 2)!.id;
  const outline = (model: Model, wall: string, id: string) => {
    const faces = elevationFaces(model, { wall, side: model.shell.walls.get(wall)!.sides.find((s) => s.room !== null)!.side }, false);
    const items = drawElevation(model, faces, { scale, named: false, units: () => null })
      .flatMap((g) => g.items)
      .filter((i) => 'entity' in i && i.entity === id && i.kind === 'fill');
    return { faces, box: items.length ? displayBounds(items) : null };
  };

  it('show what hangs on the wall and stands at it, where it is and as large as it is, and nothing that stands away', () => {
    const p = furnished();
    const model = deriveModel(p);
    const wall = backWall(p);
    const hung = outline(model, wall, 'hung').box!;
    // Seen from the room towards +y, the left end of the wall is at x = 0.15.
    expect([hung.min.x, hung.max.x, hung.min.y, hung.max.y]).toEqual([1.3 - 0.3 - 0.15, 1.3 + 0.3 - 0.15, 1.3, 1.7].map((v) => expect.closeTo(v, 3)));
    const chest = outline(model, wall, 'chest').box!;
    expect([chest.min.x, chest.max.x, chest.min.y]).toEqual([2.6 - 0.5 - 0.15, 2.6 + 0.5 - 0.15, 0].map((v) => expect.closeTo(v, 2)));
    expect(chest.max.y).toBeCloseTo(0.8, 2);
    expect(outline(model, wall, 'sofa').box).toBeNull();
  });

  it('lie at the same height and mirrored along on the other side of the drawing when the wall is drawn the other way round', () => {
    const p = furnished();
    const turned = edit(p, 'carry', {
      ids: Object.keys(p.walls).concat(Object.keys(p.pieces)),
      about: { x: 2, y: 1.5 },
      turn: Math.PI,
      mirror: null,
      by: { x: 0, y: 0 },
      copy: false,
    });
    const wall = Object.values(turned.walls).find((w) => turned.corners[w.start].y < 1 && turned.corners[w.end].y < 1)!.id;
    const a = outline(deriveModel(p), backWall(p), 'hung').box!;
    const b = outline(deriveModel(turned), wall, 'hung').box!;
    for (const end of ['min', 'max'] as const) for (const axis of ['x', 'y'] as const) expect(b[end][axis]).toBeCloseTo(a[end][axis], 4);
  });

  it('draws the outline a table has between its legs', () => {
    const p = room();
    const table = { ...pieceFrom(stockCard('table')!, 't', p.levels.ground, { x: 2, y: 2.4 }), size: { width: 1.6, depth: 0.8, height: 0.75 } };
    const model = deriveModel(edit(p, 'piece.add', { pieces: [table] }));
    const wall = backWall(p);
    const faces = elevationFaces(model, { wall, side: model.shell.walls.get(wall)!.sides.find((s) => s.room !== null)!.side }, false);
    const fills = drawElevation(model, faces, { scale, named: false, units: () => null })
      .flatMap((g) => g.items)
      .flatMap((i) => (i.kind === 'fill' && i.entity === 't' ? [i] : []));
    const area = (rings: readonly (readonly Vec2[])[]): number => Math.abs(rings.reduce((sum, r) => sum + signedArea([...r]), 0));
    const all = fills.reduce((sum, f) => sum + area(f.rings), 0);
    // Far less than the box it stands in: one sees the wall between its legs.
    expect(all).toBeGreaterThan(0.05 * 1.6 * 0.75);
    expect(all).toBeLessThan(0.45 * 1.6 * 0.75);
  });
});
