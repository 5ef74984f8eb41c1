import type { DerivedPatch, Face } from './dressed';
import { joinMeshes, MeshBuilder, type Mesh } from '../../geometry/mesh';
import { boolean, totalArea } from '../../geometry/polygon';
import { rectangle, type Region, type Ring } from '../../geometry/region';
import { closedSection, sweep, type SweepStretch } from '../../geometry/sweep';
import { cross3, sub3, unit3, type Vec2, type Vec3 } from '../../geometry/vec';
import type { Finish, Panels, Patch, Profile } from '../../project/schema';
import { isStraight } from '../bow';
import { faceX } from '../wall-face';
import { onFace, outOf } from './faces';
import { NEAR, TIGHT } from '../../units/tolerance';

/** Thickness of what is laid, by the category of its finish, metres. */
const LAID: Partial<Record<Finish['category'], number>> = {
  Paint: 0.0007,
  Wallpaper: 0.0007,
  Plaster: 0.0007,
  Tile: 0.009,
  Brick: 0.02,
  Stone: 0.02,
  Glass: 0.006,
  Metal: 0.002,
  Cloth: 0.006,
  Carpet: 0.006,
};
/** Sections of mouldings have whole millimetres: with its bed nothing laid has a face in the plane of one of theirs. */
const BED = 0.0003;

/** How far a finish stands in front of what it lies on, metres. */
export const thicknessOf = (finish: Finish): number => (LAID[finish.category] ?? 0.012) + BED;

/** The outline of a patch in the coordinates of a face, before anything is taken off; null where it has none there. */
export function patchOutline(patch: Patch, face: Face): Ring | null {
  const { shape } = patch;
  const side = face.side;
  if (shape.kind === 'band') return side ? rectangle(0, shape.from, side.length, shape.to) : null;
  if (shape.kind === 'rectangle') {
    if (!side) return null;
    const [a, b] = [faceX(side, shape.at - shape.width / 2), faceX(side, shape.at + shape.width / 2)];
    return rectangle(Math.min(a, b), shape.base, Math.max(a, b), shape.base + shape.height);
  }
  const ring = side ? shape.points.map((p) => ({ x: faceX(side, p.x), y: p.y })) : shape.points.map(({ x, y }) => ({ x, y }));
  return ring;
}

/** Whether a patch lies on a face. */
export function liesOn(patch: Patch, face: Face): boolean {
  const { on } = patch;
  if (on.kind === 'walls') return face.kind === 'wall' && face.room === on.room;
  if (on.kind === 'wall') return face.kind === 'wall' && face.room === on.room && face.side!.wall === on.wall && face.side!.side === on.side;
  return face.kind === on.kind && face.room === on.room;
}

/** A flat body in front of a face: its front, and its edges where it has a thickness. */
function slabOn(face: Face, regions: readonly Region[], from: number, to: number): Mesh {
  const builder = new MeshBuilder();
  for (const region of splitAtBends(face, regions)) {
    const at = region.outer.reduce((sum, p) => sum + p.x, 0) / region.outer.length;
    builder.region(region, (p) => onFace(face, p, to), outOf(face, at), face.kind === 'ceiling');
  }
  for (const region of regions)
    for (const ring of [region.outer, ...region.holes])
      ring.forEach((a, i) => {
        const b = ring[(i + 1) % ring.length];
        const [p, q] = face.kind === 'ceiling' ? [b, a] : [a, b];
        builder.quad(onFace(face, p, from), onFace(face, q, from), onFace(face, q, to), onFace(face, p, to), 0, 0);
      });
  return builder.build();
}

/** Regions cut where the face bends (on an arc), so that each part is flat. */
function splitAtBends(face: Face, regions: readonly Region[]): Region[] {
  const side = face.side;
  if (!side || side.path.length < 3) return [...regions];
  const xs = side.path.map((q) => faceX(side, q.s)).sort((a, b) => a - b);
  return xs.slice(1).flatMap((x, i) => (x - xs[i] < NEAR ? [] : boolean('intersection', [...regions], [{ outer: rectangle(xs[i], -100, x, 100), holes: [] }])));
}

/** Free rectangles of regions between the upright edges of their outlines, each as high as it can be. */
function freeStrips(regions: readonly Region[]): { x0: number; y0: number; x1: number; y1: number }[] {
  const out: { x0: number; y0: number; x1: number; y1: number }[] = [];
  for (const region of regions) {
    const xs = [...new Set([region.outer, ...region.holes].flatMap((ring) => ring.map((p) => Math.round(p.x * 1e6) / 1e6)))].sort((a, b) => a - b);
    for (let i = 1; i < xs.length; i++) {
      const [a, b] = [xs[i - 1], xs[i]];
      if (b - a < 0.02) continue;
      for (const part of boolean('intersection', [region], [{ outer: rectangle(a, -100, b, 100), holes: [] }])) {
        const ys = part.outer.map((p) => p.y);
        const [y0, y1] = [Math.min(...ys), Math.max(...ys)];
        const last = out[out.length - 1];
        if (last && Math.abs(last.x1 - a) < NEAR && Math.abs(last.y0 - y0) < NEAR && Math.abs(last.y1 - y1) < NEAR) last.x1 = b;
        else out.push({ x0: a, y0, x1: b, y1 });
      }
    }
  }
  return out;
}

/** Panels over what shows of a patch, in the coordinates of its face: none where a piece of it is too small for one. */
export function panelRings(panels: Panels, regions: readonly Region[]): Ring[] {
  const strips = freeStrips(regions);
  const whole = strips.reduce((sum, s) => sum + s.x1 - s.x0, 0);
  return strips.flatMap(({ x0, y0, x1, y1 }) => {
    const [w, h] = [x1 - x0 - 2 * panels.margin, y1 - y0 - 2 * panels.margin];
    const least = panels.across === null ? panels.width : Math.max(0.05, (whole - 2 * panels.margin) / panels.across - panels.gap);
    const across =
      panels.across !== null && strips.length === 1 ? panels.across : Math.max(w > 0.08 ? 1 : 0, Math.floor((w + panels.gap + NEAR) / (least + panels.gap)));
    const [pw, ph] = [(w - (across - 1) * panels.gap) / across, (h - (panels.up - 1) * panels.gap) / panels.up];
    if (across < 1 || pw < 0.05 || ph < 0.05) return [];
    return Array.from({ length: across * panels.up }, (_, k) => {
      const x = x0 + panels.margin + (k % across) * (pw + panels.gap);
      const y = y0 + panels.margin + Math.floor(k / across) * (ph + panels.gap);
      return rectangle(x, y, x + pw, y + ph);
    });
  });
}

/** The moulding round a panel: its section swept along the outline, inwards, mitred at the corners. */
function frameOf(face: Face, ring: Ring, profile: Profile, out: number): Mesh {
  const flip = face.kind === 'ceiling';
  const points = (flip ? [...ring].reverse() : ring).map((p) => onFace(face, p, out));
  const stretches = points.map((from, i): SweepStretch => {
    const to = points[(i + 1) % points.length];
    const normal = outOf(face, ring[i].x + (ring[(i + 1) % ring.length].x - ring[i].x) / 2);
    // Square to the stretch, whatever the rounding of an arc.
    const along = unit3(sub3(to, from));
    const inward = unit3(cross3(normal, along));
    return { from, to, out: unit3(cross3(along, inward)) };
  });
  return sweep(closedSection(profile.points), stretches, true);
}

/** The mouldings round panels as one mesh. On a flat face those of the same size are one another, moved along. */
function framesOf(face: Face, rings: readonly Ring[], profile: Profile, out: number): Mesh | null {
  if (!rings.length) return null;
  const bent = face.side !== null && !isStraight(face.side);
  const made = new Map<string, { at: Vec3; mesh: Mesh }>();
  return joinMeshes(
    rings.map((ring) => {
      const at = onFace(face, ring[0], out);
      const size = `${(ring[2].x - ring[0].x).toFixed(6)}/${(ring[2].y - ring[0].y).toFixed(6)}`;
      const same = bent ? undefined : made.get(size);
      if (same) return moved(same.mesh, sub3(at, same.at));
      const mesh = frameOf(face, ring, profile, out);
      made.set(size, { at, mesh });
      return mesh;
    }),
  );
}

function moved(mesh: Mesh, by: Vec3): Mesh {
  const positions = new Float32Array(mesh.positions.length);
  for (let i = 0; i < positions.length; i += 3) {
    positions[i] = mesh.positions[i] + by.x;
    positions[i + 1] = mesh.positions[i + 1] + by.y;
    positions[i + 2] = mesh.positions[i + 2] + by.z;
  }
  return { ...mesh, positions };
}

/**
 * The patches of one face, the higher ones cut out of those below them.
 *
 * @param patches in any order
 * @param covered what joinery covers of the face: a patch stops there
 */
export function derivePatches(
  face: Face,
  patches: readonly Patch[],
  covered: readonly Region[],
  finish: (id: string) => Finish,
  profile: (id: string) => Profile | null,
): DerivedPatch[] {
  const free = covered.length ? boolean('difference', face.regions, [...covered]) : face.regions;
  const ordered = [...patches].sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));
  const shown = ordered.map((patch) => {
    const outline = patchOutline(patch, face);
    return outline ? boolean('intersection', [{ outer: turned(outline), holes: [] }], free) : [];
  });
  return ordered.flatMap((patch, i): DerivedPatch[] => {
    const above = shown.slice(i + 1).flat();
    const regions = above.length ? boolean('difference', shown[i], above) : shown[i];
    const area = totalArea(regions);
    if (area < TIGHT) return [];
    const thickness = thicknessOf(finish(patch.finish));
    const rings = patch.panels ? panelRings(patch.panels, regions) : [];
    const section = patch.panels && profile(patch.panels.profile);
    const frames = section ? framesOf(face, rings, section, thickness) : null;
    const length = rings.reduce((sum, ring) => sum + 2 * (ring[1].x - ring[0].x + ring[2].y - ring[1].y), 0);
    const inner = section
      ? rings.map((ring): Region => {
          const w = Math.max(...section.points.map((p) => p.y));
          return { outer: rectangle(ring[0].x + w, ring[0].y + w, ring[2].x - w, ring[2].y - w), holes: [] };
        })
      : [];
    const fields = patch.panels?.field ? inner.filter((r) => r.outer[1].x > r.outer[0].x && r.outer[2].y > r.outer[1].y) : [];
    return [
      {
        patch,
        face,
        regions,
        area,
        thickness,
        mesh: slabOn(face, regions, 0, thickness),
        panels: rings,
        frames,
        moulding: { length: section ? length : 0, mitres: section ? rings.length * 4 : 0 },
        fields: fields.length ? slabOn(face, fields, thickness, thickness + 0.0015) : null,
        fieldRegions: fields,
      },
    ];
  });
}

function turned(ring: Ring): Ring {
  let sum = 0;
  ring.forEach((p: Vec2, i) => {
    const q = ring[(i + 1) % ring.length];
    sum += p.x * q.y - q.x * p.y;
  });
  return sum < 0 ? [...ring].reverse() : ring;
}
