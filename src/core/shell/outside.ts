import { bar, hexahedron, post } from '../geometry/extrude';
import { MeshBuilder, type Mesh } from '../geometry/mesh';
import { boolean, signedArea, union } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import { beside } from '../geometry/polyline';
import { add, distance, left, lerp, scale, sub, unit, type Vec2, type Vec3 } from '../geometry/vec';
import type { Background, Fence, Project, Surroundings } from '../project/schema';
import { Parts, type Owned, type Owner } from '../model/body';
import type { Deriving } from '../model/deriving';
import { regionOf } from '../project/ground-order';
import { groundHeight } from './ground';
import type { Memo } from '../model/memo';
import { BARE } from '../project/kinds/first-finishes';
import { DUST, NEAR } from '../units/tolerance';

export interface DerivedFence {
  id: string;
  fence: Fence;
  /** Along its line, metres. */
  length: number;
  mesh: Mesh;
  /** Its outline seen from above, one a stretch. */
  rings: Ring[];
}

/** How far the ground is drawn, metres. */
export const GROUND_REACH = 400;

/** Distance between the posts of a fence, metres, at most. */
const BAY = 1.8;

export function deriveFence(fence: Fence, foot: (p: Vec2) => number): DerivedFence {
  const builder = new MeshBuilder();
  const line = fence.closed ? [...fence.points, fence.points[0]] : fence.points;
  const rings: Ring[] = [];
  let total = 0;
  const half = fence.thickness / 2;
  const [l, r] = [beside(line, half), beside(line, -half)];
  for (let i = 0; i + 1 < line.length; i++) {
    const [a, b] = [line[i], line[i + 1]];
    const length = distance(a, b);
    if (length < NEAR) continue;
    total += length;
    const d = unit(sub(b, a));
    const bays = Math.max(1, Math.ceil(length / BAY - DUST));
    const at = (s: number): Vec3 => {
      const p = lerp(a, b, s / length);
      return { ...p, z: foot(p) + fence.z };
    };
    if (fence.kind === 'hedge' || fence.kind === 'wall') {
      rings.push([r[i], r[i + 1], l[i + 1], l[i]]);
      // In bays, so that it follows the ground; its corners are mitred.
      for (let k = 0; k < bays; k++) {
        const [s, e] = [k / bays, (k + 1) / bays];
        const quad = [lerp(r[i], r[i + 1], s), lerp(r[i], r[i + 1], e), lerp(l[i], l[i + 1], e), lerp(l[i], l[i + 1], s)];
        const z = [at(s * length).z, at(e * length).z, at(e * length).z, at(s * length).z];
        hexahedron(
          builder,
          quad.map((p, q) => ({ ...p, z: z[q] - 0.1 })),
          quad.map((p, q) => ({ ...p, z: z[q] + fence.height })),
        );
      }
      continue;
    }
    const n = scale(left(d), half);
    rings.push([sub(a, n), sub(b, n), add(b, n), add(a, n)]);
    for (let k = 0; k <= bays; k++) {
      const p = at((length * k) / bays);
      if (k < bays || !fence.closed) post(builder, p, d, 0.09, p.z - 0.3, p.z + fence.height + 0.05);
    }
    for (let k = 0; k < bays; k++) {
      const [p, q] = [at((length * k) / bays), at((length * (k + 1)) / bays)];
      const rails = fence.kind === 'rails' ? [0.3, 0.62, 0.94] : [0.18, 0.85];
      for (const share of rails) bar(builder, p, q, 0.04, fence.height * share - 0.05, fence.height * share + 0.03);
      if (fence.kind === 'rails') continue;
      const side = scale(left(d), 0.03);
      const count = Math.max(1, Math.floor(distance(p, q) / 0.11));
      for (let m = 0; m < count; m++) {
        const [s, e] = [(m + 0.04) / count, (m + 0.96) / count];
        const board = (t: number): Vec3 => ({ ...add(lerp(p, q, t), side), z: p.z + (q.z - p.z) * t });
        bar(builder, board(s), board(e), 0.02, 0.05, fence.height);
      }
    }
  }
  return { id: fence.id, fence, length: total, mesh: builder.build(), rings };
}

/** Deterministic heights of a far silhouette, 0 to 1: a few waves laid over one another. */
const waves = (angle: number, seed: number): number =>
  0.5 + 0.24 * Math.sin(angle * 3 + seed) + 0.16 * Math.sin(angle * 7 + seed * 2.3) + 0.1 * Math.sin(angle * 17 + seed * 4.1);

/** What is seen beyond the site: rings of a landscape, far enough not to come near. */
export function backdrop(background: Background, ground: number): { part: string; finish: string; mesh: Mesh }[] {
  if (background === 'none') return [];
  const out: { part: string; finish: string; mesh: Mesh }[] = [];
  const ring = (part: string, finish: string, radius: number, low: number, high: number, seed: number, rough: number): void => {
    const builder = new MeshBuilder();
    const STEPS = 180;
    const at = (k: number): { p: Vec2; h: number } => {
      const angle = (2 * Math.PI * (k % STEPS)) / STEPS;
      const crown = rough * (0.5 + 0.5 * Math.sin(angle * 61 + seed)) * (0.6 + 0.4 * Math.sin(angle * 113 + seed * 3));
      return { p: { x: radius * Math.cos(angle), y: radius * Math.sin(angle) }, h: low + (high - low) * waves(angle, seed) + crown };
    };
    for (let k = 0; k < STEPS; k++) {
      const [a, b] = [at(k), at(k + 1)];
      // Seen from the middle.
      builder.quad({ ...b.p, z: ground - 1 }, { ...a.p, z: ground - 1 }, { ...a.p, z: ground + a.h }, { ...b.p, z: ground + b.h });
    }
    out.push({ part, finish, mesh: builder.build() });
  };
  if (background === 'fields') {
    ring('hedgerow', 'backdrop.near', 130, 2, 4, 1, 2.5);
    ring('rise', 'backdrop.middle', 220, 8, 20, 2.7, 1.5);
    ring('hills', 'backdrop.far', 340, 22, 48, 5.1, 0);
  } else if (background === 'woods') {
    ring('trees', 'backdrop.near', 80, 10, 15, 1.3, 5);
    ring('wood', 'backdrop.middle', 140, 18, 28, 3.9, 6);
    ring('hills', 'backdrop.far', 340, 30, 60, 5.1, 0);
  } else {
    ring('trees', 'backdrop.near', 95, 4, 7, 1.3, 3);
    const builder = new MeshBuilder();
    const COUNT = 64;
    for (let k = 0; k < COUNT; k++) {
      const angle = (2 * Math.PI * k) / COUNT;
      const w = 6 + 5 * waves(angle * 5, 2);
      const h = 6 + 9 * waves(angle * 9, 4);
      const d = { x: Math.cos(angle), y: Math.sin(angle) };
      const [c, u] = [scale(d, 150), left(d)];
      const quad = [
        add(add(c, scale(u, -w)), scale(d, -5)),
        add(add(c, scale(u, -w)), scale(d, 5)),
        add(add(c, scale(u, w)), scale(d, 5)),
        add(add(c, scale(u, w)), scale(d, -5)),
      ];
      const ring4 = signedArea(quad) < 0 ? [...quad].reverse() : quad;
      hexahedron(
        builder,
        ring4.map((p) => ({ ...p, z: ground - 1 })),
        ring4.map((p) => ({ ...p, z: ground + h })),
      );
    }
    out.push({ part: 'houses', finish: 'brick.red-stock', mesh: builder.build() });
    ring('hills', 'backdrop.far', 340, 16, 34, 5.1, 0);
  }
  return out;
}

/** How far the ground goes: the ground of a picture all round begins where that of the site ends. */
function groundOutline(round: Surroundings | null): Ring {
  const [{ x, y }, reach, sides] = round ? [round.at, round.reach, 64] : [{ x: 0, y: 0 }, GROUND_REACH * Math.SQRT2, 4];
  return Array.from({ length: sides }, (_, k) => {
    const angle = ((k - sides / 8) * 2 * Math.PI) / sides - Math.PI / 2;
    return { x: x + reach * Math.cos(angle), y: y + reach * Math.sin(angle) };
  });
}

/** The ground round about, with holes where areas and basins lie. */
function groundSheet(ground: number, holes: readonly Region[], outline: Ring): Mesh {
  const builder = new MeshBuilder();
  for (const part of holes.length ? boolean('difference', [{ outer: outline, holes: [] }], [...holes]) : [{ outer: outline, holes: [] }])
    builder.region(part, (p) => ({ ...p, z: ground }), { x: 0, y: 0, z: 1 });
  return builder.build();
}

/** A fence with its parts; it follows the ground. */
export function deriveFenceIn(fence: Fence, { memo, project, owner, parts }: Deriving): DerivedFence {
  const made = memo.get('fence', fence.id, [fence, project.grounds, project.site], () => deriveFence(fence, (p) => groundHeight(project, p)));
  parts.putOf(owner, fence, { part: 'body', sort: 'fence', mesh: made.mesh });
  return made;
}

/** The ground round about, and what is seen beyond the site. @param project in one phase */
export function deriveSite(memo: Memo, project: Project): readonly Owned[] {
  const { ground, background, surroundings } = project.site;
  const round = surroundings?.lie === 'round' ? surroundings : null;
  const parts = new Parts(memo, project);
  const holes = memo.get('ground holes', '', [project.grounds, ground], () => {
    const rings = Object.values(project.grounds).map(regionOf);
    return rings.length > 1 ? union(rings) : rings;
  });
  const near = memo.get('ground', '', [holes, ground, round?.reach, round?.at.x, round?.at.y], () => groundSheet(ground, holes, groundOutline(round)));
  const own = project.outside.ground;
  parts.put(SITE, { part: 'sheet', sort: 'ground', finish: own ?? BARE.ground, chosen: own !== null, target: { kind: 'ground' }, mesh: near });
  for (const { part, finish, mesh } of memo.get('backdrop', '', [background, ground], () => backdrop(background, ground)))
    parts.put(BEYOND, { part, sort: 'backdrop', finish, target: null, mesh });
  return parts.made;
}

/** The ground round about, and what is seen beyond the site. No thing of a project can have these ids. */
export const SITE: Owner = { id: '/site', kind: 'site', level: null };
export const BEYOND: Owner = { id: '/beyond', kind: 'backdrop', level: null };
