import { fittingsIn, frontOf, SHALLOWEST, wallFoot, type AssembledUnit } from '../cabinetry/assemble';
import type { DerivedRun } from '../cabinetry/derive';
import { cardOf, type PlacedFitting } from '../cabinetry/fittings';
import { frontOut, isDrawn } from '../cabinetry/front';
import type { Stretch } from '../cabinetry/leg';
import { standsOut } from '../project/joinery';
import { runnerFor } from '../cabinetry/unit';
import { transformPoint } from '../geometry/mesh';
import { apart, boolean, boxOf, signedArea, totalArea } from '../geometry/polygon';
import { add, distance, dot, left, scale, sub, unit as unitVector, type Vec2 } from '../geometry/vec';
import { derivedOf, type Model } from '../model/model';
import { isChair } from '../placing/around';
import { roomOfRun } from '../project/runs';
import type { Room, Run } from '../project/schema';
import { lineOf } from '../cabinetry/sides';
import { isStraight } from '../shell/bow';
import { sweptBy, swingsOf } from '../shell/openings/swings';
import { formatLength } from '../units/length';
import { NEAR } from '../units/tolerance';
import type { Finding } from './finding';

/** Checks of runs of cabinets (trade figures): what fits, room to work beside and before what one works at, what opens into what. */

/** Worktop wanted beside what one cooks on and washes at, the lesser and the greater side, and beside a fridge, metres. */
const BESIDE: Readonly<Record<string, readonly [number, number]>> = { hob: [0.3, 0.38], sink: [0.45, 0.6], fridge: [0, 0.38] };

/** Aisle before a run by profile: as is usual, close, or for a wheelchair, metres. */
const AISLE = { close: 0.915, usual: 1.07, wheelchair: 1.2 } as const;

/** Room before what one only stands at, as before a wardrobe, metres (trade figures). */
const FRONT = { close: 0.75, usual: 0.9, wheelchair: 1.2 } as const;

/** Least height of a hood above what heats by electricity, and by gas, metres. */
const HOOD = { electric: 0.6, gas: 0.65 } as const;

/** The way from sink to hob to fridge: each leg of it, and all of it, metres. */
const PATH = { least: 1.2, most: 2.7, sum: 7.9 } as const;

/** How far a dishwasher may be from the sink, metres. */
const FROM_SINK = 0.6;

/** Depth for knees under a top: at 760, 915 and 1070 high, metres. */
const KNEES: readonly (readonly [height: number, depth: number])[] = [
  [0.84, 0.45],
  [0.99, 0.38],
  [Infinity, 0.3],
];

/** How far a hob stays from a tall side, metres. */
const TALL = 0.3;

/** How near to the end of its leg a unit stands in the corner of its room, metres. */
const CORNER = 0.02;

/** How far an open front may reach into something before it is said, m². */
const TOUCH = 0.002;

interface At {
  run: DerivedRun;
  unit: AssembledUnit;
  fitting: PlacedFitting;
  word: string;
  /** Along its leg, metres. */
  stretch: Stretch;
  leg: number;
  /** Its middle in the plan. */
  point: Vec2;
}

const along = ({ legs }: DerivedRun, leg: number): Vec2 => unitVector(sub(legs[leg].to, legs[leg].from));

/** What is built into the units of a run, where it is. */
const builtIn = (run: DerivedRun): At[] =>
  run.units.flatMap((unit) =>
    fittingsIn(unit, run.run.made).map((fitting): At => {
      const { at, size, built } = fitting;
      const p = transformPoint(unit.matrix, { x: at.x, y: at.y, z: 0 });
      const from = unit.placed.stretch.from + at.x - size.width / 2;
      // What stands in its unit takes all of its width.
      const stretch = ['inside', 'stands', 'behind', 'raised'].includes(fitting.how) ? unit.placed.stretch : { from, to: from + size.width };
      return { run, unit, fitting, word: built.word, leg: unit.placed.leg, stretch, point: { x: p.x, y: p.y } };
    }),
  );

const cooks = ({ word }: At): boolean => word === 'hob' || word === 'range cooker';

/** All findings about one run. */
export function runFindings({ id }: Run, model: Model): Finding[] {
  const all = derivedOf(model, 'runs');
  const run = all.find((r) => r.id === id);
  if (!run) return [];
  const things = builtIn(run);
  return [
    ...fits(run, things, model),
    ...worktopBeside(run, things, model),
    ...jointed(run, model),
    ...hobs(run, things, model),
    ...neighbours(run, things, model),
    ...aisle(run, all, model),
    ...opened(run, all, model),
    ...path(run, all, model),
    ...seats(run, model),
    ...reach(run, model),
  ];
}

const say = (model: Model, metres: number): string => formatLength(metres, model.project.units);

const nameOf = ({ fitting }: At): string => cardOf(fitting).name;

/** What is too long for its wall, or too large for its unit. */
function fits(run: DerivedRun, things: readonly At[], model: Model): Finding[] {
  const out: Finding[] = [];
  [...run.floor.lacks, ...run.hung.lacks].forEach((lacks) => {
    if (lacks > NEAR) out.push({ code: 'run.long', message: `${run.run.name} is ${say(model, lacks)} too long for its wall.`, ids: [run.id] });
  });
  for (const { unit, placed } of run.units) {
    if (unit.bare || placed.corner) continue;
    const behind = run.obstacles.find(
      (o) =>
        o.leg === placed.leg &&
        o.top > run.step + (unit.band === 'wall' ? wallFoot(run.run.made) : 0) + NEAR &&
        Math.min(o.to, placed.stretch.to) - Math.max(o.from, placed.stretch.from) > NEAR &&
        placed.depth - o.depth < SHALLOWEST,
    );
    if (behind)
      out.push({
        code: 'unit.boxed',
        message: `${run.run.name}: behind ${unit.name} something stands out ${say(model, behind.depth)} from the wall; it is ${say(model, placed.depth)} deep.`,
        ids: [unit.id, run.id],
      });
  }
  for (const own of things)
    for (const [key, word] of [
      ['width', 'wide'],
      ['height', 'high'],
      ['depth', 'deep'],
    ] as const) {
      const over = own.fitting.over[key] ?? 0;
      if (over > NEAR)
        out.push({
          code: 'unit.fits',
          message: `${nameOf(own)} is ${say(model, over)} too ${word} for its place in ${run.run.name}.`,
          ids: [own.unit.unit.id],
        });
    }
  return out;
}

/** Slabs that are longer than one is had, since what is let into them leaves no place for a joint. */
function jointed({ id, run, worktop }: DerivedRun, model: Model): Finding[] {
  if (!worktop.tooLong) return [];
  const longest = Math.max(...worktop.slabs.map((s) => s.length));
  return [
    {
      code: 'run.slab',
      message: `${run.name}: a slab of its worktop is ${say(model, longest)} long and one is had ${say(model, run.slabs.longest)} long; what is let into it leaves no place for a joint.`,
      ids: [id],
    },
  ];
}

/** Rooms in which a sink is for washing oneself. */
const WASHING: ReadonlySet<Room['use']> = new Set(['bathroom', 'shower room', 'cloakroom']);

/** How far the worktop goes on to one side of something, up to its end or to the next thing let into it; round a corner it goes on. */
function clearBeside(run: DerivedRun, things: readonly At[], own: At, side: 'left' | 'right'): number {
  const at = side === 'left' ? own.stretch.from : own.stretch.to;
  const top = run.worktop.stretches.find((s) => s.leg === own.leg && s.from < at + NEAR && s.to > at - NEAR);
  if (!top) return 0;
  const others = things.filter((o) => o !== own && o.leg === own.leg && (o.fitting.how === 'top' || o.fitting.how === 'through'));
  const next = others.flatMap((o) => {
    const gap = side === 'left' ? at - o.stretch.to : o.stretch.from - at;
    return gap > -NEAR ? [gap] : [];
  });
  const end = side === 'left' ? at - top.from : top.to - at;
  const length = distance(run.legs[own.leg].from, run.legs[own.leg].to);
  const goesOn =
    side === 'left'
      ? top.from < NEAR && run.worktop.stretches.some((s) => s.leg === own.leg - 1)
      : top.to > length - NEAR && run.worktop.stretches.some((s) => s.leg === own.leg + 1);
  return Math.min(goesOn ? Infinity : end, ...next);
}

function worktopBeside(run: DerivedRun, things: readonly At[], model: Model): Finding[] {
  // A basin in a bathroom wants no room for pots.
  if (WASHING.has(model.project.rooms[roomOfRun(run.run) ?? '']?.use ?? 'unnamed')) return [];
  return things.flatMap((own): Finding[] => {
    const wanted = BESIDE[own.word];
    if (!wanted || own.fitting.how === 'cell') return [];
    const sides = (['left', 'right'] as const).map((side) => clearBeside(run, things, own, side));
    // A drainer is where one puts down what is washed.
    const [less, more] = [Math.min(...sides), Math.max(...sides)];
    const short = less < wanted[0] - NEAR ? [less, wanted[0]] : more < wanted[1] - NEAR ? [more, wanted[1]] : null;
    if (!short) return [];
    return [
      {
        code: 'run.worktop',
        message: `${run.run.name}: ${say(model, Math.max(0, short[0]))} of worktop beside the ${own.word}; ${say(model, short[1])} are wanted.`,
        ids: [own.unit.unit.id, run.id],
      },
    ];
  });
}

/** Hobs under windows and beside tall sides; hoods too low above them, or narrower. */
function hobs(run: DerivedRun, things: readonly At[], model: Model): Finding[] {
  const out: Finding[] = [];
  for (const own of things.filter(cooks)) {
    const ids = [own.unit.unit.id, run.id];
    const leg = run.run.legs[own.leg];
    const d = along(run, own.leg);
    if (leg?.kind === 'wall')
      for (const { opening, point } of model.shell.openings.values()) {
        if (opening.wall !== leg.wall || opening.kind !== 'window') continue;
        const at = dot(sub(point, run.legs[own.leg].from), d);
        if (at + opening.width / 2 > own.stretch.from + NEAR && at - opening.width / 2 < own.stretch.to - NEAR)
          out.push({
            code: 'hob.window',
            message: `${run.run.name}: the hob is under ${opening.name}; what is before it may catch fire, and draughts reach it.`,
            ids,
          });
      }
    for (const { unit, placed } of run.units) {
      if (unit.band !== 'tall' || placed.leg !== own.leg) continue;
      const gap = Math.max(placed.stretch.from - own.stretch.to, own.stretch.from - placed.stretch.to);
      if (gap > -NEAR && gap < TALL - NEAR)
        out.push({
          code: 'hob.tall',
          message: `${run.run.name}: the hob is ${say(model, gap)} from the side of ${unit.name}; ${say(model, TALL)} are wanted.`,
          ids,
        });
    }
    const hood = things.find((h) => h.word === 'hood' && h.leg === own.leg && h.stretch.from < own.stretch.to && h.stretch.to > own.stretch.from);
    if (!hood) continue;
    const gas = own.fitting.traits.heat === 'gas';
    const { made } = run.run;
    const height = wallFoot(made) + hood.fitting.at.z - (made.plinth + made.base.height + made.worktop.thickness);
    const least = gas ? HOOD.gas : HOOD.electric;
    if (height < least - NEAR)
      out.push({
        code: 'hood.low',
        message: `${run.run.name}: the hood hangs ${say(model, height)} above the hob; ${say(model, least)} are wanted${gas ? ' over gas' : ''}.`,
        ids: [hood.unit.unit.id, run.id],
      });
    if (hood.fitting.size.width < own.fitting.size.width - 0.01)
      out.push({
        code: 'hood.narrow',
        message: `${run.run.name}: the hood is ${say(model, own.fitting.size.width - hood.fitting.size.width)} narrower than the hob.`,
        ids: [hood.unit.unit.id, run.id],
      });
  }
  return out;
}

/** A dishwasher far from the sink; an oven in a corner; fronts that open against a wall without a filler. */
function neighbours(run: DerivedRun, things: readonly At[], model: Model): Finding[] {
  const out: Finding[] = [];
  const sinks = things.filter((t) => t.word === 'sink');
  for (const own of things.filter((t) => t.word === 'dishwasher')) {
    const same = sinks
      .filter((s) => s.leg === own.leg)
      .map((s) => Math.max(s.unit.placed.stretch.from - own.stretch.to, own.stretch.from - s.unit.placed.stretch.to));
    if (sinks.length && !same.some((gap) => gap < FROM_SINK + NEAR))
      out.push({
        code: 'dishwasher.sink',
        message: `${run.run.name}: the dishwasher is not beside the sink; ${say(model, FROM_SINK)} at most are wanted between them.`,
        ids: [own.unit.unit.id, run.id],
      });
  }
  for (const own of run.units) {
    const { unit, placed } = own;
    if (placed.corner || unit.bare || unit.band === 'wall' || run.run.legs[placed.leg]?.kind !== 'wall') continue;
    const length = distance(run.legs[placed.leg].from, run.legs[placed.leg].to);
    const ends: ('left' | 'right')[] = [
      ...(placed.stretch.from < CORNER ? (['left'] as const) : []),
      ...(length - placed.stretch.to < CORNER ? (['right'] as const) : []),
    ];
    if (!ends.length) continue;
    const oven = things.find((t) => t.unit === own && (t.word === 'oven' || t.word === 'range cooker'));
    if (oven)
      out.push({
        code: 'oven.corner',
        message: `${run.run.name}: the ${oven.word} stands in the corner; nobody can stand beside its open door.`,
        ids: [unit.id, run.id],
      });
    const { cells } = frontOf(own, run.run.made);
    // Handles of drawers, and doors that hang there, want room to open.
    const tight = cells.some(({ cell, leaves }) => isDrawn(cell) || leaves.some((l) => l.hand !== null && ends.includes(l.hand as 'left' | 'right')));
    if (tight && standsOut(own.look))
      out.push({
        code: 'unit.filler',
        message: `${run.run.name}: ${unit.name} stands against the wall without a filler; its fronts and handles want room to open.`,
        ids: [unit.id, run.id],
      });
  }
  return out;
}

const front = (run: DerivedRun, { placed }: AssembledUnit): { near: Vec2; far: Vec2; out: Vec2 } => {
  const line = run.legs[placed.leg];
  const d = along(run, placed.leg);
  const out = scale(left(d), -1);
  const at = (x: number): Vec2 => add(add(line.from, scale(d, x)), scale(out, placed.depth + frontOut(run.run.made)));
  return { near: at(placed.stretch.from), far: at(placed.stretch.to), out };
};

const ring = (a: Vec2, b: Vec2, out: Vec2, by: number): Vec2[] => [a, add(a, scale(out, by)), add(b, scale(out, by)), b];

const turned = (points: readonly Vec2[]): Vec2[] => (signedArea(points) < 0 ? [...points].reverse() : [...points]);

/** What two outlines share, m². */
const meets = (a: readonly Vec2[], b: readonly Vec2[]): number =>
  apart(boxOf(a), boxOf(b)) ? 0 : totalArea(boolean('intersection', [{ outer: turned(a), holes: [] }], [{ outer: turned(b), holes: [] }]));

/** Furniture that stands in the way of what is opened or passed. */
const inTheWay = (model: Model, level: string): Model['pieces'] =>
  model.pieces.filter((p) => p.piece.level === level && p.item?.mount === 'floor' && !p.item.lies && !isChair(p.item, p.piece.size) && p.piece.elevation < 0.5);

/** Walls as one comes up to them: strips behind their faces. */
const wallStrips = (model: Model, level: string): { ring: readonly Vec2[]; name: string }[] =>
  [...model.shell.walls.values()]
    .filter(({ wall }) => wall.level === level && wall.kind !== 'boundary')
    .flatMap(({ sides }) => sides.filter((s) => isStraight(s) && s.length > NEAR).map(lineOf))
    .map(({ from, to }) => ({ ring: ring(from, to, left(unitVector(sub(to, from))), 0.05), name: 'the wall' }));

/** Whether one works standing before a run: at its worktop, or in the kitchen it is a part of. */
function isWorkedAt(run: DerivedRun, all: readonly DerivedRun[], model: Model): boolean {
  const room = roomOfRun(run.run);
  if (WASHING.has(model.project.rooms[room ?? '']?.use ?? 'unnamed')) return false;
  // What stands free belongs to the kitchen of its level.
  const near = room === null ? all.filter((r) => r.run.level === run.run.level) : all.filter((r) => roomOfRun(r.run) === room);
  return run.worktop.regions.length > 0 || near.some((r) => builtIn(r).length > 0);
}

/** The narrowest place before a run where one works: to another run, to furniture, to a wall. */
function aisle(run: DerivedRun, all: readonly DerivedRun[], model: Model): Finding[] {
  const wanted = (isWorkedAt(run, all, model) ? AISLE : FRONT)[model.project.clearances];
  const level = run.run.level;
  let worst: { width: number; by: string; id: string } | null = null;
  const others = all
    .filter((r) => r.run.level === level)
    .flatMap((r) =>
      r.units
        .filter((u) => u.unit.band !== 'wall' && u.unit.bare !== 'space')
        .map((u) => ({ id: u.unit.id, ring: u.placed.footprint as readonly Vec2[], name: r.run.name })),
    );
  const standing = [...inTheWay(model, level).map((p) => ({ ring: p.footprint as readonly Vec2[], name: p.piece.name })), ...wallStrips(model, level)];
  for (const own of run.units) {
    const { unit, placed } = own;
    if (unit.band === 'wall' || unit.bare || placed.corner) continue;
    const { near, far, out } = front(run, own);
    const d = along(run, placed.leg);
    const there = [...others.filter((o) => o.id !== unit.id), ...standing];
    const width = placed.stretch.to - placed.stretch.from;
    for (const { ring: other, name } of there) {
      const spots = other.map((p) => ({ x: dot(sub(p, near), d), y: dot(sub(p, near), out) }));
      const [low, high] = [Math.min(...spots.map((s) => s.x)), Math.max(...spots.map((s) => s.x))];
      const off = Math.min(...spots.map((s) => s.y));
      if (Math.min(high, width) - Math.max(low, 0) < 0.05 || off < 0.02 || off > wanted - 0.01) continue;
      // Only what really stands there, not a corner of its box.
      if (meets(ring(near, far, out, wanted), other) < TOUCH) continue;
      if (!worst || off < worst.width) worst = { width: off, by: name, id: unit.id };
    }
  }
  return worst
    ? [
        {
          code: 'run.aisle',
          message: `${run.run.name}: the aisle to ${worst.by} is ${say(model, worst.width)} wide; ${say(model, wanted)} are wanted.`,
          ids: [worst.id, run.id],
        },
      ]
    : [];
}

/** Between two heights above the floor of a level, metres. */
interface High {
  z0: number;
  z1: number;
}

/** What is swept by a front that is opened: its outline in the plan, between two heights. */
interface Swept extends High {
  ring: Vec2[];
  what: string;
}

const levels = (a: High, b: High): boolean => Math.min(a.z1, b.z1) - Math.max(a.z0, b.z0) > NEAR;

/** Between which heights a unit is. */
const heightsOf = ({ unit, size, matrix }: AssembledUnit, { run: { made }, step }: DerivedRun): High => {
  const foot = step + (unit.band === 'wall' ? matrix[14] : made.plinth);
  return { z0: unit.band === 'wall' ? foot : step, z1: foot + size.height };
};

/** What the fronts of a unit sweep when they are opened. Flaps that go up sweep what is before them. */
function sweeps(run: DerivedRun, own: AssembledUnit): Swept[] {
  const { unit, placed, size } = own;
  if (placed.corner || unit.bare) return [];
  const { near, out } = front(run, own);
  const d = along(run, placed.leg);
  const { cells } = frontOf(own, run.run.made);
  const at = (x: number, y: number): Vec2 => add(add(near, scale(d, x)), scale(out, y));
  const made: Swept[] = [];
  const foot = run.step + (unit.band === 'wall' ? own.matrix[14] : run.run.made.plinth);
  for (const { cell, leaves } of cells)
    for (const { x0, x1, z0, z1, hand } of leaves) {
      const high = { z0: foot + z0, z1: foot + z1 };
      if (isDrawn(cell)) made.push({ ring: ring(at(x0, 0), at(x1, 0), out, runnerFor(size.depth) * 0.9), what: `a drawer of ${unit.name}`, ...high });
      else if (hand === 'left' || hand === 'right') {
        const [pivot, wide] = [hand === 'left' ? x0 : x1, x1 - x0];
        const fan = Array.from({ length: 9 }, (_, k) => {
          const a = ((Math.PI / 2) * k) / 8;
          return at(pivot + (hand === 'left' ? 1 : -1) * wide * Math.cos(a), wide * Math.sin(a));
        });
        made.push({ ring: [at(pivot, 0), ...fan], what: `a door of ${unit.name}`, ...high });
      } else if (hand === 'down' || hand === 'up') made.push({ ring: ring(at(x0, 0), at(x1, 0), out, z1 - z0), what: `the flap of ${unit.name}`, ...high });
    }
  for (const { item, size: s, at: p, how } of fittingsIn(own, run.run.made)) {
    const x = p.x - s.width / 2;
    const z = run.step + p.z;
    const high = { z0: z, z1: z + s.height };
    if (how === 'stands' && item.id !== 'washer')
      made.push({
        ring: ring(at(x, 0), at(x + s.width, 0), out, item.id === 'fridge' ? s.width : 0.6),
        what: `the door of the ${item.name.toLowerCase()}`,
        ...high,
      });
    else if (how === 'cell' && item.id === 'oven') made.push({ ring: ring(at(x, 0), at(x + s.width, 0), out, 0.45), what: 'the door of the oven', ...high });
  }
  return made;
}

/** How far the handles of shut fronts stand out, metres. */
const HANDLE = 0.035;

/** Fronts that open into another unit, its handles, furniture, a wall, or the way of a door of the room: where what they sweep meets it. */
function opened(run: DerivedRun, all: readonly DerivedRun[], model: Model): Finding[] {
  const level = run.run.level;
  const out: Finding[] = [];
  const told = new Set<string>();
  const pieces = inTheWay(model, level).map((p) => ({ p, z0: p.piece.elevation, z1: p.piece.elevation + p.piece.size.height }));
  const others = all
    .filter((r) => r.run.level === level)
    .flatMap((r) => r.units.filter((u) => u.unit.bare !== 'space').map((unit) => ({ r, unit, ...heightsOf(unit, r) })));
  const doors = [...model.shell.openings.values()]
    .filter((o) => o.level === level)
    .flatMap((o) => swingsOf(o).map((s) => ({ ring: sweptBy(s), name: o.opening.name, z0: o.opening.sill, z1: o.opening.sill + o.opening.height })));
  const walls = wallStrips(model, level);
  for (const own of run.units)
    for (const swept of sweeps(run, own)) {
      const key = own.unit.id;
      if (told.has(key)) break;
      const hit =
        others.find((o) => {
          const { r, unit } = o;
          if (unit === own || !levels(swept, o)) return false;
          if (meets(swept.ring, unit.placed.footprint) > TOUCH) return true;
          if (unit.placed.corner || unit.unit.bare || !standsOut(unit.look)) return false;
          // The handles of what is shut.
          const shut = front(r, unit);
          return meets(swept.ring, ring(shut.near, shut.far, shut.out, HANDLE)) > TOUCH;
        })?.unit.unit.name ??
        pieces.find((o) => levels(swept, o) && meets(swept.ring, o.p.footprint) > TOUCH)?.p.piece.name ??
        walls.find((w) => meets(swept.ring, w.ring) > TOUCH)?.name ??
        doors.find((o) => levels(swept, o) && meets(swept.ring, o.ring) > 0.02)?.name;
      if (!hit) continue;
      told.add(key);
      out.push({
        code: 'unit.opens',
        message: `${run.run.name}: ${swept.what} opens into ${hit}.`,
        ids: [own.unit.id, run.id],
      });
    }
  return out;
}

/** The way from sink to hob to fridge in the room of a run; told at the run that has the sink. */
function path(run: DerivedRun, all: readonly DerivedRun[], model: Model): Finding[] {
  const room = roomOfRun(run.run);
  if (room === null) return [];
  const things = all.filter((r) => r.run.level === run.run.level && (r === run || roomOfRun(r.run) === room || roomOfRun(r.run) === null)).flatMap(builtIn);
  const own = things.filter((t) => t.run === run);
  const sink = own.find((t) => t.word === 'sink');
  const hob = things.find(cooks);
  const fridge = things.find((t) => t.word === 'fridge');
  if (!sink || !hob || !fridge) return [];
  const legs = [
    { from: sink, to: hob },
    { from: hob, to: fridge },
    { from: fridge, to: sink },
  ].map((l) => ({ ...l, far: distance(l.from.point, l.to.point) }));
  const sum = legs.reduce((s, l) => s + l.far, 0);
  const ids = [sink.unit.unit.id, run.id];
  if (sum > PATH.sum + NEAR)
    return [
      {
        code: 'run.path',
        message: `${run.run.name}: from sink to hob to fridge and back it is ${say(model, sum)}; ${say(model, PATH.sum)} at most are wanted.`,
        ids,
      },
    ];
  const long = legs.reduce((a, b) => (b.far > a.far ? b : a));
  const short = legs.reduce((a, b) => (b.far < a.far ? b : a));
  const bad = long.far > PATH.most + NEAR ? long : short.far < PATH.least - NEAR ? short : null;
  return bad
    ? [
        {
          code: 'run.path',
          message: `${run.run.name}: from the ${bad.from.word} to the ${bad.to.word} it is ${say(model, bad.far)}; ${say(model, PATH.least)} to ${say(model, PATH.most)} are wanted.`,
          ids,
        },
      ]
    : [];
}

/** Room for knees where one sits at a worktop. */
function seats(run: DerivedRun, model: Model): Finding[] {
  const { made, behind, name, raised } = run.run;
  if (behind <= 0) return [];
  const top = made.plinth + made.base.height + made.worktop.thickness + raised;
  const need = KNEES.find(([height]) => top <= height)![1];
  return behind < need - NEAR
    ? [
        {
          code: 'run.knees',
          message: `${name}: ${say(model, behind)} for knees under the worktop; ${say(model, need)} are wanted at this height.`,
          ids: [run.id],
        },
      ]
    : [];
}

/** How high one works and reaches over a worktop from a wheelchair, metres: figures of accessible building that are widely used. */
const SEATED = { worktop: 0.865, over: 1.12 } as const;

/** Worktops too high for a wheelchair, and shelves over them out of reach; in its profile alone. */
function reach(run: DerivedRun, model: Model): Finding[] {
  if (model.project.clearances !== 'wheelchair') return [];
  const { made, name } = run.run;
  const out: Finding[] = [];
  const top = made.plinth + made.base.height + made.worktop.thickness;
  if (run.worktop.regions.length && isWorkedAt(run, derivedOf(model, 'runs'), model) && top > SEATED.worktop + NEAR)
    out.push({
      code: 'run.seated',
      message: `${name}: its worktop is ${say(model, top)} high; from a wheelchair one works at ${say(model, SEATED.worktop)} at most.`,
      ids: [run.id],
    });
  const shelf = wallFoot(made) + made.board;
  const hung = run.units.find(({ unit }) => unit.band === 'wall' && !unit.bare && !unit.fittings.length);
  if (hung && shelf > SEATED.over + NEAR)
    out.push({
      code: 'run.reach',
      message: `${name}: the lowest shelf of what hangs is ${say(model, shelf)} high; over a worktop one reaches ${say(model, SEATED.over)} from a wheelchair.`,
      ids: [hung.unit.id, run.id],
    });
  return out;
}
