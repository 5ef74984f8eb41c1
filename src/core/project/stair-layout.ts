import { tidyRing, union } from '../geometry/polygon';
import type { Ring } from '../geometry/region';
import { Polyline } from '../geometry/polyline';
import { add, distance, dot, left, lerp, rotate, scale, sub, unit, type Vec2 } from '../geometry/vec';
import { formatLength } from '../units/length';
import { DomainError } from './errors';
import { levelAbove } from './levels';
import type { Project, Stair } from './schema';
import { solveStair, STAIR_PROFILES, type Breach, type StairSizes } from './stair-rules';
import { DUST, HAIR, NEAR, NIL, TIGHT } from '../units/tolerance';

/** One step: what one treads on, in the coordinates of the stair (first riser through its origin, setting out along +y). */
export interface Step {
  ring: Ring;
  /** The same with its nosing: what is built. */
  tread: Ring;
  /** Height of its top above the foot of the stair, metres. */
  z: number;
  landing: boolean;
}

/** One edge of a stair, a line in plan with the places where the risers meet it. */
export interface StairEdge {
  points: Vec2[];
  /** Distance along it of every riser, metres. */
  at: number[];
}

/** A stair worked out in plan. Lengths in metres, in the coordinates of the stair. */
export interface StairLayout {
  stair: Stair;
  /** What it climbs, floor to floor. */
  height: number;
  sizes: StairSizes;
  left: StairEdge;
  right: StairEdge;
  /** Ends of every riser line: on the left, on the right. The last one is the edge of the floor it arrives at. */
  risers: { left: Vec2; right: Vec2 }[];
  steps: Step[];
  /** The line one walks, from the first riser to the last. */
  walk: Vec2[];
  /** Narrowest end of a winder; null where there are none. */
  narrow: number | null;
}

const QUARTER = Math.PI / 2;

/** How far the walking line of winders runs from the inner side, metres. */
const walkingLine = (stair: Stair): number => {
  const { line } = STAIR_PROFILES[stair.profile].winder;
  return Math.min('share' in line ? line.share * stair.width : line.from, stair.width * 0.9);
};

/** How many winders a turn takes, so that their narrow ends are wide enough and the walking line keeps the going. */
function windersFor(stair: Stair, going: number, quarters: number, well: number): number {
  const turned = walkingLine(stair) * QUARTER * quarters;
  const narrow = Math.min(STAIR_PROFILES[stair.profile].winder.narrow, going * 0.5);
  return Math.max(2 * quarters, Math.ceil(turned / (going - narrow) - DUST), Math.ceil((turned + well) / going - DUST));
}

/** What a stair climbs, floor to floor; null where it has no height of its own and there is no level above. */
export function stairRise(project: Pick<Project, 'levels'>, stair: Pick<Stair, 'rise' | 'level' | 'z'>): number | null {
  if (stair.rise !== null) return stair.rise;
  const above = levelAbove(project, stair.level);
  const height = above ? above.elevation - project.levels[stair.level].elevation - stair.z : 0;
  return height > 0.05 ? height : null;
}

const turnsOf = (form: Stair['form']): number => (form === 'quarter' || form === 'half' ? 1 : form === 'three' ? 2 : 0);

/** Risers and going of a stair, with what breaks the rules of its profile. */
function solve(project: Pick<Project, 'units'>, stair: Stair, height: number): StairSizes {
  const { units } = project;
  const say = (v: number): string => formatLength(v, units);
  if (stair.form !== 'spiral') {
    const landings = stair.corners === 'landing' ? turnsOf(stair.form) : 0;
    const { profile, width, risers, going, space } = stair;
    return solveStair({ height, profile, width, risers, going, space, flights: 1 + landings, units });
  }
  const rules = STAIR_PROFILES[stair.profile].spiral;
  const risers = stair.risers ?? Math.max(2, Math.ceil(height / (rules.rise - 0.015) - DUST));
  const rise = height / risers;
  // Under a full turn there must be room to walk: that limits how far one step may turn.
  const most = (2 * Math.PI * rise) / (rules.headroom + stair.tread);
  const radius = stair.column + rules.at;
  const going = stair.going ?? Math.max(rules.going, Math.min(0.24, most * radius));
  const breaches: Breach[] = [];
  const add = (rule: Breach['rule'], is: number, limit: number, text: string): void => void breaches.push({ rule, is, limit, text });
  if (rise > rules.rise + NEAR)
    add('rise', rise, rules.rise, `Each step rises ${say(rise)}, more than the ${say(rules.rise)} of profile ${stair.profile} for spirals; add a riser.`);
  if (going < rules.going - NEAR)
    add('going', going, rules.going, `The going at the walking line is ${say(going)}, less than the ${say(rules.going)} of profile ${stair.profile}.`);
  if (going / radius > most + NEAR)
    add(
      'headroom',
      ((2 * Math.PI * radius) / going) * rise - stair.tread,
      rules.headroom,
      `Under a full turn ${say(((2 * Math.PI * radius) / going) * rise - stair.tread)} are left, less than ${say(rules.headroom)}; make the going shorter.`,
    );
  return { risers, rise, going, pitch: Math.atan2(rise, going), breaches };
}

/** Collects both edges of a stair that turns to the left, and the riser lines between them. */
class Course {
  private p: Vec2 = { x: 0, y: 0 };
  private d: Vec2 = { x: 0, y: 1 };
  readonly inner: Vec2[];
  readonly outer: Vec2[];
  readonly risers: { inner: Vec2; outer: Vec2 }[] = [];
  readonly walk: Vec2[] = [];
  readonly landings = new Set<number>();
  narrow: number | null = null;

  constructor(
    readonly width: number,
    readonly walking: number,
  ) {
    this.inner = [this.side(1)];
    this.outer = [this.side(-1)];
    this.riser();
  }

  private side(k: 1 | -1): Vec2 {
    return add(this.p, scale(left(this.d), (k * this.width) / 2));
  }

  private riser(): void {
    const [inner, outer] = [this.side(1), this.side(-1)];
    this.risers.push({ inner, outer });
    this.walk.push(lerp(inner, outer, 0.5));
  }

  private forward(by: number): void {
    this.p = add(this.p, scale(this.d, by));
  }

  private turn(): void {
    this.d = left(this.d);
  }

  /** So many steps straight on. */
  flight(steps: number, going: number): void {
    for (let i = 0; i < steps; i++) {
      this.forward(going);
      this.riser();
    }
    this.inner.push(this.side(1));
    this.outer.push(this.side(-1));
  }

  /** A level landing round one or two corners. */
  landing(quarters: 1 | 2, well: number): void {
    this.landings.add(this.risers.length - 1);
    for (let i = 0; i < quarters; i++) {
      this.forward(this.width / 2);
      this.walk.push(this.p);
      this.outer.push(add(this.side(-1), scale(this.d, this.width / 2)));
      this.turn();
      this.forward(this.width / 2);
      if (i + 1 < quarters) this.forward(well);
      // Forward from the second corner the landing's far side runs to the next one.
      this.inner.push(this.side(1));
    }
    this.outer.push(this.side(-1));
    this.riser();
  }

  /** Winders round one or two corners: equal goings along the walking line, equal widths along the inner side. */
  winders(steps: number, going: number, quarters: 1 | 2, well: number): void {
    const { walking, width } = this;
    const before = (steps * going - walking * QUARTER * quarters - (quarters - 1) * well) / 2;
    const innerFrom = this.side(1);
    const inner: Vec2[] = [innerFrom];
    const outer: Vec2[] = [this.side(-1)];
    const path: { from: Vec2; d: Vec2; length: number; centre: Vec2 | null }[] = [];
    const off = (p: Vec2, d: Vec2): Vec2 => add(p, scale(left(d), -walking));
    this.forward(before);
    path.push({ from: off(innerFrom, this.d), d: this.d, length: before, centre: null });
    for (let i = 0; i < quarters; i++) {
      const corner = this.side(1);
      inner.push(corner);
      path.push({ from: off(corner, this.d), d: this.d, length: walking * QUARTER, centre: corner });
      outer.push(add(this.side(-1), scale(this.d, width)));
      this.forward(width / 2);
      this.turn();
      this.forward(width / 2);
      const on = i + 1 < quarters ? well : before;
      path.push({ from: off(this.side(1), this.d), d: this.d, length: on, centre: null });
      this.forward(on);
    }
    inner.push(this.side(1));
    outer.push(this.side(-1));
    const [innerLine, outerLine] = [new Polyline(inner), new Polyline(outer)];
    const walkAt = (u: number): Vec2 => {
      let rest = u;
      for (const part of path) {
        if (rest <= part.length + NIL || part === path[path.length - 1])
          return part.centre ? add(part.centre, rotate(sub(part.from, part.centre), rest / walking)) : add(part.from, scale(part.d, rest));
        rest -= part.length;
      }
      return path[0].from;
    };
    for (let j = 1; j <= steps; j++) {
      const p = innerLine.at((j * innerLine.length) / steps);
      const through = walkAt(j * going);
      const q = j === steps ? outerLine.at(outerLine.length) : outerLine.at(outerLine.hit(p, unit(sub(through, p))));
      this.risers.push({ inner: p, outer: q });
      this.walk.push(through);
    }
    this.inner.push(...inner.slice(1));
    this.outer.push(...outer.slice(1));
    const end = innerLine.length / steps;
    this.narrow = this.narrow === null ? end : Math.min(this.narrow, end);
  }
}

/** Lines of an edge without points that repeat. */
function edgeOf(points: readonly Vec2[], risers: readonly Vec2[]): StairEdge {
  const clean = points.filter((p, i) => i === 0 || distance(p, points[i - 1]) > DUST);
  const line = new Polyline(clean);
  let from = 0;
  const at = risers.map((r) => {
    // The riser's end lies on the line, further on than the one before.
    let best = from;
    let least = Infinity;
    for (let i = 0; i < clean.length - 1; i++) {
      const d = sub(clean[i + 1], clean[i]);
      const l = Math.hypot(d.x, d.y);
      const t = Math.max(0, Math.min(1, dot(sub(r, clean[i]), d) / (l * l)));
      const s = line.s[i] + t * l;
      const off = distance(r, lerp(clean[i], clean[i + 1], t));
      if (s > from - TIGHT && off < least - TIGHT) {
        least = off;
        best = s;
      }
    }
    from = Math.max(from, best);
    return from;
  });
  return { points: clean, at };
}

/**
 * A stair worked out in plan: its risers and goings by the rules of its profile, every step as an outline. Winders are
 * balanced: riser lines pass through equal goings on the walking line and equal widths on the inner side.
 *
 * @throws DomainError `stair.…` where it cannot be built
 */
export function stairLayout(project: Pick<Project, 'levels' | 'units'>, stair: Stair): StairLayout {
  const refuse = (code: string, why: string): never => {
    throw new DomainError(`stair.${code}`, `${stair.name} was not set: ${why}`, [stair.id]);
  };
  const height = stairRise(project, stair) ?? refuse('no-level', 'there is no level above to climb to; add one, or give it a height of its own.');
  const sizes = solve(project, stair, height);
  const { risers: n, going } = sizes;
  const total = n - 1;
  const { form, corners, width, well } = stair;
  if (form === 'spiral') return spiral(stair, height, sizes);
  const course = new Course(width, walkingLine(stair));
  const turns = turnsOf(form);
  const quarters = form === 'half' ? 2 : 1;
  const gap = form === 'half' ? well : 0;
  const perTurn = turns === 0 ? 0 : corners === 'landing' ? 1 : windersFor(stair, going, quarters, gap);
  const straight = total - turns * perTurn;
  const flights = turns + 1;
  const least = corners === 'landing' ? flights : 0;
  if (straight < least) refuse('short', `${n} risers are too few for its turns; fix more, or take another form.`);
  const first = stair.first ?? (form === 'three' ? Math.round(straight / 3) : Math.ceil(straight / 2));
  const inner = corners === 'landing' ? 1 : 0;
  const steps = turns === 0 ? [straight] : [Math.max(inner, Math.min(first, straight - inner * turns))];
  if (turns === 2) {
    const rest = straight - steps[0];
    steps.push(Math.max(inner, Math.min(stair.second ?? Math.floor(rest / 2), rest - inner)));
  }
  if (turns > 0) steps.push(straight - steps.reduce((a, b) => a + b, 0));
  steps.forEach((count, i) => {
    course.flight(count, going);
    if (i >= turns) return;
    if (corners === 'landing') course.landing(quarters, gap);
    else course.winders(perTurn, going, quarters, gap);
  });
  const lines = course.risers;
  const mirror = stair.turn === 'right' && turns > 0;
  const flip = (p: Vec2): Vec2 => (mirror ? { x: -p.x, y: p.y } : p);
  const innerEdge = edgeOf(
    course.inner.map(flip),
    lines.map((r) => flip(r.inner)),
  );
  const outerEdge = edgeOf(
    course.outer.map(flip),
    lines.map((r) => flip(r.outer)),
  );
  const [l, r] = mirror ? [outerEdge, innerEdge] : [innerEdge, outerEdge];
  const layout = finish({ stair, height, sizes, left: l, right: r, walk: course.walk.map(flip), narrow: course.narrow, landings: course.landings });
  if (course.narrow !== null) {
    const { narrow } = STAIR_PROFILES[stair.profile].winder;
    if (course.narrow < narrow - NEAR)
      sizes.breaches.push({
        rule: 'winder',
        is: course.narrow,
        limit: narrow,
        text: `Its winders are ${formatLength(course.narrow, project.units)} wide at their narrow ends, less than the ${formatLength(narrow, project.units)} of profile ${stair.profile}; lengthen the going.`,
      });
  }
  return layout;
}

/** Steps between two edges; `landings`: which of them are. */
function finish({ landings, ...given }: Omit<StairLayout, 'risers' | 'steps'> & { landings: ReadonlySet<number> }): StairLayout {
  const { stair, sizes, left: l, right: r } = given;
  const [leftLine, rightLine] = [new Polyline(l.points), new Polyline(r.points)];
  const risers = l.at.map((s, i) => ({ left: leftLine.at(s), right: rightLine.at(r.at[i]) }));
  const steps: Step[] = [];
  for (let i = 0; i < risers.length - 1; i++) {
    const ring = tidyRing([...rightLine.between(r.at[i], r.at[i + 1]), ...leftLine.between(l.at[i], l.at[i + 1]).reverse()]);
    steps.push({
      ring,
      tread: withNose(ring, risers[i], noseOf(leftLine, rightLine, l.at[i], r.at[i], stair.nosing), stair.nosing),
      z: (i + 1) * sizes.rise,
      landing: landings.has(i),
    });
  }
  return { ...given, risers, steps };
}

/** Steps about a column. */
function spiral(stair: Stair, height: number, sizes: StairSizes): StairLayout {
  const at = STAIR_PROFILES[stair.profile].spiral.at;
  const inner = stair.column;
  const outer = inner + stair.width;
  const each = sizes.going / (inner + at);
  const hand = stair.turn === 'left' ? 1 : -1;
  const centre = { x: -hand * (inner + stair.width / 2), y: 0 };
  const FINE = 6;
  const on = (radius: number, angle: number): Vec2 => ({ x: centre.x + hand * radius * Math.cos(angle), y: centre.y + radius * Math.sin(angle) });
  const count = sizes.risers - 1;
  const arc = (radius: number): Vec2[] => Array.from({ length: count * FINE + 1 }, (_, k) => on(radius, (k * each) / FINE));
  const edge = (radius: number): StairEdge => {
    const points = arc(radius);
    const line = new Polyline(points);
    return { points, at: Array.from({ length: count + 1 }, (_, i) => line.s[i * FINE]) };
  };
  const [i, o] = [edge(inner), edge(outer)];
  const [l, r] = hand === 1 ? [i, o] : [o, i];
  return finish({ stair, height, sizes, left: l, right: r, walk: arc(inner + at), narrow: null, landings: new Set() });
}

/** A point of a stair's own coordinates in the plan. */
export const stairToPlan = (stair: Pick<Stair, 'x' | 'y' | 'rotation'>, p: Vec2): Vec2 => add(stair, rotate(p, stair.rotation));

/** The centre of a spiral, in its own coordinates. */
export const spiralCentre = (stair: Stair): Vec2 => ({ x: (stair.turn === 'left' ? -1 : 1) * (stair.column + stair.width / 2), y: 0 });

/** Where the nosing over a riser meets one edge of the stair: back along that edge, so that it never stands out sideways. */
function noseEnd(line: Polyline, at: number, down: Vec2, by: number): Vec2 {
  const p = line.at(at);
  // The way the edge comes up to the riser; at its start, the way it goes on.
  const before = at > NEAR ? sub(p, line.at(Math.max(0, at - 0.02))) : sub(line.at(0.02), p);
  const back = scale(unit(before), -1);
  const cos = dot(back, down);
  // Past a corner, on a landing, it lies straight before the riser.
  return add(p, cos < 0.4 ? scale(down, by) : scale(back, by / cos));
}

/** Ends of the nosing over a riser: on the left, on the right. */
export function noseOf(l: Polyline, r: Polyline, atLeft: number, atRight: number, by: number): { left: Vec2; right: Vec2 } {
  const [a, b] = [l.at(atLeft), r.at(atRight)];
  // Seen from right to left the way down lies at the left.
  const down = distance(a, b) < NEAR ? { x: 0, y: -1 } : left(unit(sub(a, b)));
  return { left: noseEnd(l, atLeft, down, by), right: noseEnd(r, atRight, down, by) };
}

/** A ring with the nosing over its riser. */
export function withNose(ring: Ring, riser: { left: Vec2; right: Vec2 }, nose: { left: Vec2; right: Vec2 }, by: number): Ring {
  const { left: a, right: b } = riser;
  if (by === 0 || distance(a, b) < NEAR) return ring;
  const at = ring.findIndex((p) => distance(p, b) < HAIR);
  const to = ring.findIndex((p) => distance(p, a) < HAIR);
  if (at >= 0 && to >= 0 && (to + 1) % ring.length === at) {
    // From the right end of the riser all the way round to its left end, then along the nosing.
    const rest = Array.from({ length: ring.length }, (_, k) => ring[(at + k) % ring.length]);
    return tidyRing([...rest, nose.left, nose.right]);
  }
  // Where another flight lies against it, the riser is no edge of the ring any more.
  const into = scale(unit(sub(lerp(a, b, 0.5), lerp(nose.left, nose.right, 0.5))), 1e-3);
  const strip = tidyRing([nose.left, nose.right, add(b, into), add(a, into)]);
  return union([
    { outer: ring, holes: [] },
    { outer: strip, holes: [] },
  ])[0].outer;
}
