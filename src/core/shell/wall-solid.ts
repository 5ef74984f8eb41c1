import { MeshBuilder } from '../geometry/mesh';
import { boolean, signedArea, triangulateKeeping } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import { cross, cross3, sub3, unit3, distance, dot, left, lerp, sub, unit, type Vec2, type Vec3 } from '../geometry/vec';
import { openingOutline } from '../project/openings';
import { Opening, type Side } from '../project/schema';
import { creases, planRing } from '../project/roofs';
import { stationAt, type Station } from '../project/wall-line';
import type { PieceFootprint } from './junctions';
import { framePlace } from '../project/opening-stand';

import type { UpperEdge, WallInputs, WallSide } from './wall-types';
import { faceX } from './wall-face';
import { DUST, NEAR, NIL, TOUCH, WELD } from '../units/tolerance';

/** A stretch of a wall between junctions, of one piece or of the chords of an arc. */
export interface Stretch {
  prints: PieceFootprint[];
  left: Station[];
  right: Station[];
  startCap: Vec2[];
  endCap: Vec2[];
  leftSide: WallSide;
  rightSide: WallSide;
  /** Above which height its ends are seen: −∞ where nothing built meets them, ∞ where they are hidden all the way up. */
  startSeen: number;
  endSeen: number;
  /** The nodes it lies between. */
  startNode: number;
  endNode: number;
  /** Distances along the wall it covers. */
  s0: number;
  s1: number;
}

/** A cut through one run: the outline on each of its faces, point by point, and where between them the frame stands. */
interface Cut {
  opening: Opening;
  /** Outline as (s, height), and the same points in the plan, on the left and the right face. */
  left: { s: number; z: number; p: Vec2 }[];
  right: { s: number; z: number; p: Vec2 }[];
  /** Share of the way from left to right at which the reveal changes sides. */
  split: number;
  foot: boolean;
  head: boolean;
  /** The end of the run it goes round, for corner windows. */
  round: 'start' | 'end' | null;
}

/** Builds one run of a wall as a closed solid. */
export class RunSolid {
  private readonly cuts: Cut[];
  /** Where the upper edge bends, along the wall. */
  private readonly bends: number[];

  constructor(
    private readonly run: Stretch,
    private readonly inputs: WallInputs,
    private readonly upper: UpperEdge,
    openings: readonly Opening[],
    /** Ends of the runs before and after: where this one meets them face to face there is nothing between. */
    private readonly neighbours: readonly Vec2[][],
  ) {
    this.cuts = openings.map((o) => this.cut(o)).sort((a, b) => a.opening.at - b.opening.at);
    this.bends = upper.folds;
  }

  private cut(opening: Opening): Cut {
    const { path, thickness, foot } = this.inputs;
    const { p, d } = stationAt(path, opening.at);
    const outline = openingOutline(opening);
    const round = opening.form === 'corner' ? opening.hinge : null;
    const on = (side: Station[]): Cut['left'] =>
      outline.map((q) => {
        if (round === 'start' && q.x < 0) return { ...side[0], z: q.y };
        if (round === 'end' && q.x > 0) return { ...side[side.length - 1], z: q.y };
        return { ...atLateral(side, p, d, q.x), z: q.y };
      });
    const heads = outline.map((q) => q.y);
    const niche = opening.kind === 'niche';
    const inside: Side = this.run.leftSide.outdoors && !this.run.rightSide.outdoors ? 'right' : 'left';
    const place = niche ? 0.5 : framePlace(opening, thickness, inside) / thickness;
    const [l, r] = [on(this.run.left), on(this.run.right)];
    return {
      opening,
      left: l,
      right: r,
      split: 0.5 - place,
      foot: !niche && Math.abs(Math.min(...heads) - foot) < NEAR,
      head: !niche && [...l, ...r].some((q) => q.z > this.upper.at(q.p, q.s) - NEAR),
      round,
    };
  }

  /** @param ends what is seen of its ends, for each side */
  build(leftFace: MeshBuilder, rightFace: MeshBuilder, lids: MeshBuilder, caps: MeshBuilder, ends: Record<Side, MeshBuilder>): void {
    this.face(leftFace, this.run.left, 'left');
    this.face(rightFace, this.run.right, 'right');
    for (const cut of this.cuts) this.reveal(cut, leftFace, rightFace);
    this.cap(this.run.startCap, this.run.startSeen, ends.left, ends.right, caps, 'start');
    this.cap(this.run.endCap, this.run.endSeen, ends.right, ends.left, caps, 'end');
    this.lid(lids, true);
    this.lid(lids, false);
  }

  /** A vertical face in its own plane, carried into space stretch by stretch. */
  private face(builder: MeshBuilder, path: Station[], side: Side): void {
    const own = this.cuts.filter((c) => c.opening.kind !== 'niche' || c.opening.swing === side);
    const { foot } = this.inputs;
    const [first, last] = [path[0], path[path.length - 1]];
    if (last.s - first.s <= NEAR) return;
    const bottom: Vec2[] = [];
    const holes: Ring[] = [];
    const through: Region[] = [];
    for (const cut of own) {
      const outline = cut[side].map((q) => ({ x: q.s, y: q.z }));
      if (cut.head || cut.round) through.push({ outer: outline, holes: [] });
      else if (cut.foot && Math.abs(outline[0].y - foot) < NEAR && Math.abs(outline[1].y - foot) < NEAR && outline.slice(2).every((q) => q.y > foot + NEAR))
        bottom.push(outline[0], ...outline.slice(2).reverse(), outline[1]);
      else if (cut.foot) through.push({ outer: outline, holes: [] });
      else holes.push([...outline].reverse());
    }
    const top = (q: Station): Vec2 => ({ x: q.s, y: this.upper.at(q.p, q.s) });
    const breaks = path.slice(1, -1).map(top);
    const outer: Ring = [{ x: first.s, y: foot }, ...bottom, { x: last.s, y: foot }, top(last), ...breaks.reverse(), top(first)];
    let regions: Region[] = [{ outer, holes }];
    if (through.length) regions = boolean('difference', regions, through);
    const out = side === 'left' ? 1 : -1;
    for (let i = 1; i < path.length; i++) {
      const [a, b] = [path[i - 1], path[i]];
      const d = unit(sub(b.p, a.p));
      const normal = left(d);
      const n: Vec3 = { x: normal.x * out, y: normal.y * out, z: 0 };
      const place = (q: Vec2): Vec3 => ({ ...lerp(a.p, b.p, (q.x - a.s) / (b.s - a.s)), z: q.y });
      // An arc is a row of plane stretches; an opening may reach over several of them.
      const slabs =
        path.length === 2
          ? regions
          : boolean('intersection', regions, [
              {
                outer: [
                  { x: a.s, y: -100 },
                  { x: b.s, y: -100 },
                  { x: b.s, y: 100 },
                  { x: a.s, y: 100 },
                ],
                holes: [],
              },
            ]);
      const face = side === 'left' ? this.run.leftSide : this.run.rightSide;
      const uv = (q: Vec2): Vec2 => ({ x: faceX(face, q.x), y: q.y });
      for (const region of slabs) builder.region(region, place, n, out > 0, uv);
    }
  }

  /** The inner faces of an opening: each side of the wall has the part up to the frame; a niche has them and its back on one side. */
  private reveal(cut: Cut, leftFace: MeshBuilder, rightFace: MeshBuilder): void {
    const { foot, thickness } = this.inputs;
    const { opening } = cut;
    const count = cut.left.length;
    const niche = opening.kind === 'niche';
    const depth = niche ? opening.depth / thickness : 0;
    for (let i = 0; i < count; i++) {
      const j = (i + 1) % count;
      const [a, b] = [cut.left[i], cut.left[j]];
      const onFoot = cut.foot && a.z < foot + NEAR && b.z < foot + NEAR;
      const onHead = cut.head && a.z > this.upper.at(a.p, a.s) - NEAR && b.z > this.upper.at(b.p, b.s) - NEAR;
      if (onFoot || onHead) continue;
      if (cut.round && i % 2 === 0) {
        this.level(cut, i === 0, leftFace, rightFace);
        continue;
      }
      // Where it goes round the corner there is no jamb: rectangles run from the sill round to the left.
      if (cut.round === (i === 1 ? 'end' : 'start')) continue;
      const at = (k: number, t: number): Vec3 => ({ ...lerp(cut.left[k].p, cut.right[k].p, t), z: cut.left[k].z });
      // Along an arc the edge bends where the face does; the middle of the reveal runs straight.
      const chains = [this.edge('left', cut.left[i], cut.left[j]), this.edge('right', cut.right[i], cut.right[j])];
      const band = (builder: MeshBuilder, t0: number, t1: number): void => {
        if (t1 - t0 <= DUST) return;
        const from = t0 === 0 ? chains[0] : [at(i, t0), at(j, t0)];
        const to = t1 === 1 ? chains[1] : [at(i, t1), at(j, t1)];
        if (from.length === 2 && to.length === 2) builder.quad(from[1], from[0], to[0], to[1]);
        else strip(builder, from, to);
      };
      if (!niche) {
        band(leftFace, 0, cut.split);
        band(rightFace, cut.split, 1);
      } else if (opening.swing === 'left') band(leftFace, 0, depth);
      else band(rightFace, 1 - depth, 1);
    }
    if (!niche) return;
    const t = opening.swing === 'left' ? depth : 1 - depth;
    const back = cut.left.map((q, k) => ({ ...lerp(q.p, cut.right[k].p, t), z: q.z }));
    const plane = cut.left.map((q) => ({ x: q.s, y: q.z }));
    const d = unit(sub(cut.left[1].p, cut.left[0].p));
    const out = opening.swing === 'left' ? 1 : -1;
    const n = left(d);
    const builder = out > 0 ? leftFace : rightFace;
    const base = back.map((q, k) => builder.vertex(q, { x: n.x * out, y: n.y * out, z: 0 }, plane[k].x, plane[k].y));
    const indices = triangulateKeeping(plane);
    for (let k = 0; k < indices.length; k += 3) {
      const [p, q, r] = [base[indices[k]], base[indices[k + 1]], base[indices[k + 2]]];
      if (out > 0) builder.triangle(p, r, q);
      else builder.triangle(p, q, r);
    }
  }

  /** The sill or the head of a window that goes round a corner: from its jamb to the end of the run, as that is cut. */
  private level(cut: Cut, sill: boolean, leftFace: MeshBuilder, rightFace: MeshBuilder): void {
    const { startCap, endCap } = this.run;
    // Both from left to right.
    const end = cut.round === 'start' ? startCap : [...endCap].reverse();
    const k = cut.round === 'start' ? 1 : 0;
    const [l, r, z] = [cut.left[k].p, cut.right[k].p, cut.left[sill ? 0 : 2].z];
    const middle = lerp(l, r, cut.split);
    const node = end.length > 2 ? 1 : 0;
    for (const [builder, ring] of [
      [leftFace, [l, middle, ...end.slice(0, node + 1).reverse()]],
      [rightFace, [middle, r, ...end.slice(node).reverse()]],
    ] as const) {
      const clean = ring.filter((p, i) => distance(p, ring[(i + 1) % ring.length]) > DUST);
      if (clean.length < 3) continue;
      const turned = signedArea(clean) < 0 ? [...clean].reverse() : clean;
      const base = turned.map((p) => builder.vertex({ ...p, z }, { x: 0, y: 0, z: sill ? 1 : -1 }, p.x, p.y));
      const indices = triangulateKeeping(turned);
      for (let i = 0; i < indices.length; i += 3) {
        const [a, b, c] = [base[indices[i]], base[indices[i + 1]], base[indices[i + 2]]];
        if (sill) builder.triangle(a, b, c);
        else builder.triangle(a, c, b);
      }
    }
  }

  /** An edge of an opening on one face, with the places where the face bends. */
  private edge(side: Side, a: { s: number; z: number; p: Vec2 }, b: { s: number; z: number; p: Vec2 }): Vec3[] {
    const bends = this.run[side].slice(1, -1).filter((q) => q.s > Math.min(a.s, b.s) + DUST && q.s < Math.max(a.s, b.s) - DUST);
    if (a.s > b.s) bends.reverse();
    return [{ ...a.p, z: a.z }, ...bends.map((q) => ({ ...q.p, z: a.z + ((b.z - a.z) * (q.s - a.s)) / (b.s - a.s) })), { ...b.p, z: b.z }];
  }

  /** An end of the run, seen where nothing built meets it, else hidden inside the junction. */
  private cap(chain: Vec2[], seen: number, first: MeshBuilder, second: MeshBuilder, caps: MeshBuilder, end: 'start' | 'end'): void {
    const { foot } = this.inputs;
    const gap = this.cuts.find((c) => c.round === end);
    // A crease of the roof may cross an end.
    const bent = chain.flatMap((p, i) => (i === 0 ? [p] : [...creases(this.upper.roofs, chain[i - 1], p).map((t) => lerp(chain[i - 1], p, t)), p]));
    const half = bent.indexOf(chain[1]);
    for (let i = 1; i < bent.length; i++) {
      const [a, b] = [bent[i - 1], bent[i]];
      if (this.neighbours.some((other) => other.some((p, k) => k > 0 && distance(other[k - 1], b) < NEAR * 2 && distance(p, a) < NEAR * 2))) continue;
      const shown = i <= half ? first : second;
      const put = (builder: MeshBuilder, a0: number, b0: number, a1: number, b1: number): void => {
        if (a1 - a0 > DUST || b1 - b0 > DUST) builder.quad({ ...a, z: a0 }, { ...b, z: b0 }, { ...b, z: b1 }, { ...a, z: a1 });
      };
      // What meets it may be lower: from there on up its end is seen.
      const band = (a0: number, b0: number, a1: number, b1: number): void => {
        if (seen <= Math.min(a0, b0)) return put(shown, a0, b0, a1, b1);
        if (seen >= Math.min(a1, b1)) return put(caps, a0, b0, a1, b1);
        put(caps, a0, b0, seen, seen);
        put(shown, seen, seen, a1, b1);
      };
      if (!gap) {
        band(foot, foot, this.topAt(a), this.topAt(b));
        continue;
      }
      const [sill, head] = [gap.left[0].z, gap.left[2].z];
      band(foot, foot, sill, sill);
      band(head, head, this.topAt(a), this.topAt(b));
    }
  }

  /** Height of the upper edge above a point of the run's outline. */
  private topAt(p: Vec2): number {
    return this.upper.at(p, this.upper.alongWall ? sOf(p, [this.run.left, this.run.right]) : 0);
  }

  /** The upper side or the underside, parted where openings reach through it. */
  private lid(lids: MeshBuilder, upper: boolean): void {
    const { run } = this;
    const gaps = this.cuts.filter((c) => (upper ? c.head : c.foot));
    const ends = (cut: Cut, side: 'left' | 'right'): [number, number] => {
      const list = cut[side].filter((q) => (upper ? q.z > this.upper.at(q.p, q.s) - NEAR : q.z < this.inputs.foot + NEAR)).map((q) => q.s);
      return [Math.min(...list), Math.max(...list)];
    };
    const point = (cut: Cut, side: 'left' | 'right', s: number): Vec2 =>
      cut[side].find((q) => q.s === s && (upper ? q.z > this.upper.at(q.p, q.s) - NEAR : q.z < this.inputs.foot + NEAR))!.p;
    const jamb = (cut: Cut, end: 0 | 1): Vec2[] => {
      const [l, r] = [point(cut, 'left', ends(cut, 'left')[end]), point(cut, 'right', ends(cut, 'right')[end])];
      return [l, lerp(l, r, cut.split), r].filter((p, i, list) => i === 0 || distance(p, list[i - 1]) > DUST);
    };
    for (let k = 0; k <= gaps.length; k++) {
      const from = gaps[k - 1];
      const to = gaps[k];
      // Round a corner nothing is left before or after it.
      if ((to?.round === 'start' && k === 0) || (from?.round === 'end' && k === gaps.length)) continue;
      const start = from ? jamb(from, 1) : run.startCap;
      const end = to ? [...jamb(to, 0)].reverse() : run.endCap;
      const between = (side: 'left' | 'right'): Station[] => {
        const s0 = from ? ends(from, side)[1] : -Infinity;
        const s1 = to ? ends(to, side)[0] : Infinity;
        return run[side].slice(1, -1).filter((q) => q.s > s0 && q.s < s1);
      };
      this.lidPart(lids, upper, start, between('left'), end, between('right'));
    }
  }

  /** A stretch of the upper side or the underside, folded where the upper edge bends on both faces. */
  private lidPart(lids: MeshBuilder, upper: boolean, start: Vec2[], left: Station[], end: Vec2[], right: Station[]): void {
    const bend = upper ? left.find((q) => this.bends.some((s) => Math.abs(s - q.s) < NEAR) && right.some((r) => Math.abs(r.s - q.s) < NEAR)) : null;
    const across = bend && right.find((r) => Math.abs(r.s - bend.s) < NEAR);
    if (bend && across) {
      const [before, after] = [(q: Station) => q.s < bend.s - NEAR, (q: Station) => q.s > bend.s + NEAR];
      this.lidPart(lids, upper, start, left.filter(before), [across.p, bend.p], right.filter(before));
      this.lidPart(lids, upper, [bend.p, across.p], left.filter(after), end, right.filter(after));
      return;
    }
    const ring = [...start, ...right.map((q) => q.p), ...end, ...left.map((q) => q.p).reverse()];
    if (upper && this.upper.roofs.length) return this.lidUnderRoof(lids, ring);
    const indices = triangulateKeeping(ring);
    const z = (p: Vec2): number => (upper ? this.topAt(p) : this.inputs.foot);
    const base = ring.map((p) => lids.vertex({ ...p, z: z(p) }, { x: 0, y: 0, z: upper ? 1 : -1 }, p.x, p.y));
    for (let i = 0; i < indices.length; i += 3) {
      const [a, b, c] = [base[indices[i]], base[indices[i + 1]], base[indices[i + 2]]];
      if (upper) lids.triangle(a, b, c);
      else lids.triangle(a, c, b);
    }
  }

  /** The upper side where roofs cut it: a piece under each of their planes, and what no roof covers. */
  private lidUnderRoof(lids: MeshBuilder, ring: Ring): void {
    const whole: Region[] = [{ outer: ring, holes: [] }];
    const under = this.upper.roofs.flatMap((r) => r.under).filter((q) => q.plane);
    const pieces = under.flatMap((q) => boolean('intersection', whole, [{ outer: planRing(q), holes: [] }]));
    const outlines = this.upper.roofs.flatMap((r) => r.outlines);
    const rest = boolean('difference', whole, outlines);
    // What adjoins a piece meets it point to point.
    const border = [...ring, ...this.creased(ring)];
    // Where a crease runs along an end, clipping finds crossings that are none: on the border only its own points count.
    const mine = (p: Vec2): boolean => border.some((q) => distance(p, q) < WELD) || !onBorder(p, ring);
    const parts = [...pieces, ...rest].map((r) => r.outer.filter(mine)).filter((outer) => outer.length > 2 && Math.abs(signedArea(outer)) > 1e-8);
    const points = [...border, ...parts.flat()];
    for (const outer of parts) {
      const full = withPoints(outer, points);
      const base = full.map((p) => lids.vertex({ ...p, z: this.upper.at(p, 0) }, { x: 0, y: 0, z: 1 }, p.x, p.y));
      const indices = triangulateKeeping(full);
      for (let i = 0; i < indices.length; i += 3) lids.triangle(base[indices[i]], base[indices[i + 1]], base[indices[i + 2]]);
    }
  }

  private creased(ring: Ring): Vec2[] {
    return ring.flatMap((a, i) => {
      const b = ring[(i + 1) % ring.length];
      return creases(this.upper.roofs, a, b).map((t) => lerp(a, b, t));
    });
  }
}

const onBorder = (p: Vec2, ring: Ring): boolean =>
  ring.some((a, i) => {
    const d = sub(ring[(i + 1) % ring.length], a);
    const l = Math.hypot(d.x, d.y);
    const t = dot(sub(p, a), d) / l;
    return t > -TOUCH && t < l + TOUCH && Math.abs(cross(d, sub(p, a))) < TOUCH * l;
  });

/** A ring with those of the points in it that lie on its edges. */
function withPoints(ring: Ring, points: readonly Vec2[]): Ring {
  return ring.flatMap((a, i) => {
    const b = ring[(i + 1) % ring.length];
    const d = sub(b, a);
    const l2 = dot(d, d);
    if (l2 < 1e-14) return [a];
    const between = points
      .map((p) => ({ p, t: dot(sub(p, a), d) / l2 }))
      .filter(({ p, t }) => t > 0 && t < 1 && distance(p, a) > WELD && distance(p, b) > WELD && Math.abs(cross(d, sub(p, a))) < TOUCH * Math.sqrt(l2))
      .sort((p, q) => p.t - q.t)
      .filter((q, k, list) => k === 0 || distance(q.p, list[k - 1].p) > WELD);
    return [a, ...between.map((q) => q.p)];
  });
}

/** Triangles between two lines of points that run side by side, the one nearer to its end going on first. */
function strip(builder: MeshBuilder, from: readonly Vec3[], to: readonly Vec3[]): void {
  const share = (chain: readonly Vec3[], k: number): number => {
    const [a, b] = [chain[0], chain[chain.length - 1]];
    return Math.hypot(chain[k].x - a.x, chain[k].y - a.y, chain[k].z - a.z) / (Math.hypot(b.x - a.x, b.y - a.y, b.z - a.z) || 1);
  };
  let [i, j] = [0, 0];
  while (i + 1 < from.length || j + 1 < to.length) {
    const first = j + 1 >= to.length || (i + 1 < from.length && share(from, i + 1) <= share(to, j + 1));
    const corners = first ? [from[i + 1], from[i], to[j]] : [from[i], to[j], to[j + 1]];
    const n = unit3(cross3(sub3(corners[1], corners[0]), sub3(corners[2], corners[0])));
    const [a, b, c] = corners.map((p) => builder.vertex(p, n, p.x, p.y));
    builder.triangle(a, b, c);
    if (first) i++;
    else j++;
  }
}

/** Where along a face a point lies that is `x` along direction `d` from `origin`. */
function atLateral(path: Station[], origin: Vec2, d: Vec2, x: number): { s: number; p: Vec2 } {
  const lateral = (p: Vec2): number => dot(sub(p, origin), d);
  let i = 1;
  while (i < path.length - 1 && lateral(path[i].p) < x) i++;
  const [a, b] = [path[i - 1], path[i]];
  const [la, lb] = [lateral(a.p), lateral(b.p)];
  const t = (x - la) / (lb - la);
  return { s: a.s + (b.s - a.s) * t, p: lerp(a.p, b.p, t) };
}

/** Distance along the wall of a point on the outline of a run. */
function sOf(p: Vec2, paths: Station[][]): number {
  for (const path of paths) for (const q of path) if (q.p === p) return q.s;
  // Points of the ends: along the chord next to them.
  let best = { away: Infinity, s: 0 };
  for (const path of paths)
    for (let i = 1; i < path.length; i++) {
      const [a, b] = [path[i - 1], path[i]];
      const d = sub(b.p, a.p);
      const l2 = dot(d, d);
      if (l2 < NIL) continue;
      const t = dot(sub(p, a.p), d) / l2;
      const away = Math.max(0, -t, t - 1);
      if (away < best.away) best = { away, s: a.s + (b.s - a.s) * t };
    }
  return best.s;
}

/** A clipped piece between crowded junctions: its footprint carried up, its edges along the wall given to the sides. */
export function prism(
  ring: Ring,
  foot: number,
  upper: UpperEdge,
  path: Station[],
  sides: readonly (MeshBuilder | undefined)[],
  lids: MeshBuilder,
  caps: MeshBuilder,
): void {
  const d = unit(sub(path[path.length - 1].p, path[0].p));
  const s = (p: Vec2): number => dot(sub(p, path[0].p), d);
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length];
    const e = unit(sub(b, a));
    const builder = Math.abs(cross(e, d)) > 0.01 ? caps : dot(e, d) > 0 ? sides[1] : sides[0];
    (builder ?? caps).quad({ ...a, z: foot }, { ...b, z: foot }, { ...b, z: upper.at(b, s(b)) }, { ...a, z: upper.at(a, s(a)) });
  });
  const indices = triangulateKeeping(ring);
  for (const above of [true, false]) {
    const base = ring.map((p) => lids.vertex({ ...p, z: above ? upper.at(p, s(p)) : foot }, { x: 0, y: 0, z: above ? 1 : -1 }, p.x, p.y));
    for (let k = 0; k < indices.length; k += 3)
      if (above) lids.triangle(base[indices[k]], base[indices[k + 1]], base[indices[k + 2]]);
      else lids.triangle(base[indices[k]], base[indices[k + 2]], base[indices[k + 1]]);
  }
}
