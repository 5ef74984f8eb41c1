import { z } from 'zod';
import type { Joint } from '../../geometry/joint';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { isLight, roundedBox } from '../../geometry/shapes';
import type { Vec2, Vec3 } from '../../geometry/vec';
import { board } from '../forms/boards';
import { cornerSteps, ringOf, roseOn, shellFrom, wasteOf, type Section, type Waste } from '../forms/sanitary';
import { curve, rod, slat } from '../forms/skin';
import { post, turned } from '../forms/turned';
import { choice, unless } from '../traits';
import { circle, maker, outline, rectangle, stroke, v3, type Made, type PieceSize, type StockItem, type SymbolLine } from '../types';

const trayTraits = z.object({
  form: choice('Form', ['rectangular', 'quadrant left', 'quadrant right'], 'rectangular'),
  waste: choice('Waste', ['middle', 'left', 'right'], 'middle'),
});
type TrayTraits = z.output<typeof trayTraits>;

/** Width of the rim of a tray, how far its floor lies below it there, and how far it falls to the waste, metres. */
const RIM = 0.028;
const SUNK = 0.008;
const FALL = 0.018;

/** How far the floor of a tray lies below its rim: of a low one less. */
const sunkBy = (height: number): number => Math.min(SUNK, height * 0.2);

/** Radii of the corners of what is square or a quadrant, drawn in by a distance: a quadrant is round at the corner that stands in the room. */
function radii({ width, depth }: Pick<PieceSize, 'width' | 'depth'>, form: string, by: number, corner: number): Section['radius'] {
  const round = Math.max(0.01, Math.min(width, depth) * 0.61 - by);
  // What stands in the left corner is round at its right front.
  if (form === 'quadrant left') return [corner, corner, corner, round];
  if (form === 'quadrant right') return [corner, corner, round, corner];
  return corner;
}

function trayWaste({ width, depth, height }: PieceSize, { form, waste }: TrayTraits): Waste {
  const x = form !== 'rectangular' || waste === 'middle' ? 0 : (waste === 'left' ? -1 : 1) * (width / 2 - Math.min(0.2, width / 4));
  return { x, y: 0, z: height - sunkBy(height) - Math.min(FALL, height * 0.62), radius: Math.min(0.055, depth / 8) };
}

/** What a tray covers of the floor, drawn in by a distance. */
const outlineOf = ({ width, depth }: PieceSize, { form }: TrayTraits, by: number): Vec2[] =>
  ringOf({ width: width - 2 * by, depth: depth - 2 * by, z: 0, radius: radii({ width, depth }, form, by, 0.012) }, 8).map(({ x, y }) => ({ x, y }));

function tray(size: PieceSize, traits: TrayTraits): Made[] {
  const { width, depth, height } = size;
  const steps = cornerSteps(traits.form === 'rectangular' ? 0.03 : Math.min(width, depth) * 0.6);
  const at = (by: number, z: number, corner = 0.012): Vec3[] =>
    ringOf({ width: width - 2 * by, depth: depth - 2 * by, z, radius: radii(size, traits.form, by, corner) }, steps);
  const waste = trayWaste(size, traits);
  const edge = Math.min(0.006, height / 3);
  const round = isLight() ? [1] : [0, 0.35, 0.7, 1];
  const rings = [
    at(0.003, 0),
    ...(isLight() ? [] : [at(0.0015, 0.0004), at(0.0004, 0.0015)]),
    at(0, 0.003),
    ...round.map((t) => at(edge * (1 - Math.cos((Math.PI / 2) * t)), height - edge * (1 - Math.sin((Math.PI / 2) * t)))),
    at(RIM - 0.004, height, 0.02),
    ...(isLight() ? [] : [at(RIM - 0.001, height - sunkBy(height) * 0.12, 0.021), at(RIM + 0.001, height - sunkBy(height) * 0.4, 0.022)]),
    at(RIM + 0.005, height - sunkBy(height) + 0.001, 0.024),
    at(RIM + 0.012, height - sunkBy(height), 0.026),
  ];
  return [
    { part: 'tray', mesh: shellFrom(rings, waste) },
    { part: 'waste', mesh: wasteOf(waste) },
  ];
}

const screenTraits = z.object({
  form: choice('Form', ['fixed', 'hinged', 'sliding', 'corner', 'quadrant left', 'quadrant right', 'over a bath'], 'fixed'),
  hung: unless(choice('Hung', ['left', 'right'], 'left'), 'form', 'fixed', 'sliding', 'quadrant left', 'quadrant right'),
  frame: choice('Frame', ['none', 'slim'], 'none'),
});
type ScreenTraits = z.output<typeof screenTraits>;

/** Thickness of glass and of the profiles that hold it, what is left free below doors, metres. */
const GLASS = 0.008;
const PROFILE = 0.022;
const FREE = 0.012;

/** A pane in the plane of x, its edges ground. @param y of its middle */
const pane = (x0: number, x1: number, z0: number, z1: number, y = 0): Mesh => board(x0, y - GLASS / 2, z0, x1, y + GLASS / 2, z1, 0.0012);

/** A pane in the plane of y. */
const paneAcross = (y0: number, y1: number, z0: number, z1: number, x: number): Mesh => board(x - GLASS / 2, y0, z0, x + GLASS / 2, y1, z1, 0.0012);

/** A profile that stands at a wall, or lies over a pane. */
const profile = (x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): Mesh => board(x0, y0, z0, x1, y1, z1, 0.0015);

/** The knob or bar of a shower door at a point of its glass, on both of its sides. */
function pull(x: number, y: number, z: number): Mesh {
  const out = new MeshBuilder();
  for (const s of [-1, 1])
    out
      .add(rod([v3(x, y + s * 0.034, z - 0.09), v3(x, y + s * 0.034, z + 0.09)], 0.007, { section: 14 }))
      .add(rod([v3(x, y + s * 0.003, z - 0.06), v3(x, y + s * 0.036, z - 0.06)], 0.005, { section: 10 }))
      .add(rod([v3(x, y + s * 0.003, z + 0.06), v3(x, y + s * 0.036, z + 0.06)], 0.005, { section: 10 }));
  return out.build();
}

const hinge = (x: number, y: number, left: boolean): Joint => ({
  kind: 'hinge',
  at: { x, y, z: 0 },
  axis: { x: 0, y: 0, z: left ? -1 : 1 },
  range: [0, Math.PI / 2],
});

/** What goes round a corner wants room for it: what is too shallow is a straight screen. */
const formOf = ({ depth }: PieceSize, { form }: ScreenTraits): ScreenTraits['form'] =>
  depth < 0.55 && (form === 'corner' || form.startsWith('quadrant')) ? 'sliding' : form;

function screen(size: PieceSize, traits: ScreenTraits): Made[] {
  const { hung, frame } = traits;
  const form = formOf(size, traits);
  const { width, depth, height } = size;
  const [w, d] = [width / 2, depth / 2];
  const glass = new MeshBuilder();
  const metal = new MeshBuilder();
  const doors: Made[] = [];
  const top = height - (frame === 'slim' ? PROFILE : 0.002);
  const rail = (x0: number, x1: number, y: number): void => {
    metal.add(profile(x0, y - 0.008, 0, x1, y + 0.008, FREE - 0.002));
    if (frame === 'slim') metal.add(profile(x0, y - 0.011, height - PROFILE + 0.0004, x1, y + 0.011, height));
  };
  const atWall = (x: number, y: number): void => void metal.add(profile(x, y - 0.012, 0.0004, x + (x < 0 ? PROFILE : -PROFILE), y + 0.012, height - 0.0004));
  const door = (x0: number, x1: number, y: number, left: boolean, joint: Joint): void => {
    doors.push({ part: 'fronts', mesh: pane(x0, x1, FREE, top - 0.004, y), joint });
    doors.push({ part: 'handles', mesh: pull(left ? x1 - 0.06 : x0 + 0.06, y, Math.min(1, height * 0.5)), joint });
  };
  if (form === 'fixed' || form === 'over a bath') {
    const swings = form === 'over a bath';
    const left = hung === 'left';
    if (swings) {
      // It hangs at a post on the wall, its free corner round.
      const at = left ? -w : w;
      metal.add(post(at + (left ? 0.012 : -0.012), 0, 0.0004, height - 0.0004, 0.011, 0.011, 16));
      const [x0, x1] = left ? [-w + 0.026, w] : [-w, w - 0.026];
      doors.push({ part: 'fronts', mesh: pane(x0, x1, FREE, height - 0.002), joint: hinge(at + (left ? 0.012 : -0.012), 0, left) });
    } else {
      // It stands in front; a stay from its free end to the wall behind keeps it from swaying.
      const y = -d + 0.014;
      atWall(-w, y);
      rail(-w + PROFILE + 0.0004, w, y);
      glass.add(pane(-w + PROFILE * 0.5, w, FREE - 0.001, top, y));
      if (depth > 0.3)
        metal
          .add(rod([v3(w - 0.05, y, height + 0.006), v3(w - 0.05, d - 0.006, height + 0.006)], 0.008, { section: 14 }))
          .add(roseOn(w - 0.05, d, height + 0.006, 0.022, 0.006));
    }
  } else if (form === 'hinged') {
    atWall(-w, 0);
    atWall(w, 0);
    rail(-w + PROFILE + 0.0004, w - PROFILE - 0.0004, 0);
    const left = hung === 'left';
    door(-w + PROFILE + 0.004, w - PROFILE - 0.004, 0, left, hinge(left ? -w + PROFILE : w - PROFILE, 0, left));
  } else if (form === 'sliding') {
    atWall(-w, 0);
    atWall(w, 0);
    rail(-w + PROFILE + 0.0004, w - PROFILE - 0.0004, 0);
    metal.add(rod([v3(-w + 0.01, -0.016, height - 0.05), v3(w - 0.01, -0.016, height - 0.05)], 0.011, { section: 16 }));
    glass.add(pane(-w + PROFILE * 0.5, 0.03, FREE - 0.001, top, 0.006));
    door(-0.02, w - PROFILE - 0.004, -0.016, false, { kind: 'slide', at: v3(0, 0, 0), axis: v3(-1, 0, 0), range: [0, Math.max(0.1, w - 0.12)] });
  } else if (form === 'corner') {
    // Two fixed panes at the walls, and two doors that meet at the corner in the room.
    const left = hung === 'left';
    const [sx, mid] = [left ? 1 : -1, 0.02];
    const x = sx * (w - 0.012);
    const y = -d + 0.012;
    metal
      .add(profile(-sx * w, y - 0.012, 0.0004, -sx * (w - PROFILE), y + 0.012, height - 0.0004))
      .add(profile(x - 0.012, d - PROFILE, 0.0004, x + 0.012, d, height - 0.0004));
    const low = (a: number, b: number): [number, number] => [Math.min(a, b), Math.max(a, b)];
    const [a0, a1] = low(-sx * (w - PROFILE * 0.5), sx * mid);
    glass.add(pane(a0, a1, FREE - 0.001, top, y)).add(paneAcross(-mid, d - PROFILE * 0.5, FREE - 0.001, top, x));
    const [b0, b1] = low(sx * (mid - 0.03), x - sx * 0.01);
    const slide = (axis: Vec3): Joint => ({ kind: 'slide', at: v3(0, 0, 0), axis, range: [0, Math.max(0.1, Math.min(w, d) - 0.12)] });
    const [one, two] = [slide(v3(-sx, 0, 0)), slide(v3(0, 1, 0))];
    doors.push(
      { part: 'fronts', mesh: pane(b0, b1, FREE, top - 0.004, y - 0.012), joint: one },
      { part: 'fronts', mesh: paneAcross(y + 0.01, -mid + 0.03, FREE, top - 0.004, x + sx * 0.012), joint: two },
    );
    doors.push({ part: 'handles', mesh: pull(x - sx * 0.06, y - 0.012, 1), joint: one });
    for (const z of [0.006, height - 0.011])
      metal
        .add(profile(low(-sx * w, x)[0], y - 0.008, z - 0.005, low(-sx * w, x)[1], y + 0.008, z + 0.005))
        .add(profile(x - 0.008, y + 0.0084, z - 0.005, x + 0.008, d, z + 0.005));
  } else {
    // Two fixed panes, and two doors along the arc between them.
    const left = form === 'quadrant left';
    const sx = left ? 1 : -1;
    const r = Math.min(width, depth) * 0.61 - 0.02;
    const [cx, cy] = [sx * (w - 0.012 - r), -d + 0.012 + r];
    const arc = (from: number, to: number, by: number): Vec3[] => {
      const n = isLight() ? 4 : 14;
      return Array.from({ length: n + 1 }, (_, k) => {
        const a = from + ((to - from) * k) / n;
        return v3(cx + sx * (r + by) * Math.cos(a), cy - (r + by) * Math.sin(a), 0);
      });
    };
    const curved = (from: number, to: number, by: number, z0: number, z1: number): Mesh =>
      slat(
        arc(from, to, by).map((p) => ({ ...p, z: (z0 + z1) / 2 })),
        () => v3(0, 0, (z1 - z0) / 2),
        GLASS,
      );
    const flat = (x0: number, x1: number): void => void glass.add(pane(Math.min(x0, x1), Math.max(x0, x1), FREE - 0.001, top, -d + 0.012));
    flat(-sx * (w - 0.001), cx);
    glass.add(paneAcross(cy, d - 0.001, FREE - 0.001, top, sx * (w - 0.012)));
    const half = Math.PI / 4;
    const slide = (axis: Vec3): Joint => ({ kind: 'slide', at: v3(0, 0, 0), axis, range: [0, r * 0.45] });
    const u = Math.SQRT1_2;
    const [one, two] = [slide(v3(-sx * u, -u, 0)), slide(v3(sx * u, u, 0))];
    doors.push({ part: 'fronts', mesh: curved(half + 0.004, Math.PI / 2, 0, FREE, top - 0.004), joint: one });
    doors.push({ part: 'fronts', mesh: curved(0, half - 0.004, 0, FREE, top - 0.004), joint: two });
    for (const z of [0.006, height - 0.011]) {
      const rail_ = arc(0, Math.PI / 2, 0).map((p) => ({ ...p, z }));
      metal.add(rod([v3(sx * (w - 0.012), d, z), ...rail_, v3(-sx * w, -d + 0.012, z)], 0.0085, { section: 12 }));
    }
  }
  return [{ part: 'glass', mesh: glass.build() }, ...doors, { part: 'frame', mesh: metal.build() }].filter((p) => p.mesh.indices.length);
}

function screenSymbol(size: PieceSize, traits: ScreenTraits): SymbolLine[] {
  const { width, depth } = size;
  const { hung } = traits;
  const form = formOf(size, traits);
  const [w, d] = [width / 2, depth / 2];
  const straight = (y: number): SymbolLine[] => [outline(rectangle(width, 0.012, 0, y)), stroke([-w, y], [w, y])];
  if (form === 'corner') {
    const sx = hung === 'left' ? 1 : -1;
    return [stroke([-sx * w, -d + 0.012], [sx * (w - 0.012), -d + 0.012], [sx * (w - 0.012), d])];
  }
  if (form.startsWith('quadrant')) {
    const sx = form === 'quadrant left' ? 1 : -1;
    const r = Math.min(width, depth) * 0.61 - 0.02;
    const arc = Array.from({ length: 13 }, (_, k): [number, number] => {
      const a = (Math.PI / 2) * (k / 12);
      return [sx * (w - 0.012 - r) + sx * r * Math.cos(a), -d + 0.012 + r - r * Math.sin(a)];
    });
    return [stroke([sx * (w - 0.012), d], ...arc, [-sx * w, -d + 0.012])];
  }
  return straight(form === 'fixed' ? -d + 0.014 : 0);
}

const setTraits = z.object({ form: choice('Form', ['riser', 'riser and head', 'head', 'hand shower', 'valve'], 'riser') });

/** A thermostat that lies on the wall: a bar with a knob at each end. */
function thermostat(out: MeshBuilder, y: number, z: number, wide: number): void {
  out.add(rod([v3(-wide / 2 + 0.03, y - 0.045, z), v3(wide / 2 - 0.03, y - 0.045, z)], 0.019, { section: 20 }));
  for (const s of [-1, 1]) {
    out.add(rod([v3(s * (wide / 2 - 0.034), y - 0.045, z), v3(s * (wide / 2), y - 0.045, z)], 0.023, { section: 24 }));
    out.add(roseOn(s * 0.075, y, z, 0.03, 0.012)).add(rod([v3(s * 0.075, y - 0.008, z), v3(s * 0.075, y - 0.04, z)], 0.011, { section: 14 }));
  }
}

/** The head of a shower at the end of its arm, its face down. */
const rain = (x: number, y: number, z: number, r: number): Mesh =>
  new MeshBuilder()
    .add(
      turned(
        [
          [0, 0],
          [r * 0.94, 0],
          [r, 0.004],
          [r, 0.008],
          [r * 0.3, 0.014],
          [0.016, 0.03],
          [0, 0.03],
        ],
        { x, y, segments: 32, round: 0.0015 },
      ),
      [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, z, 1],
    )
    .build();

/** A hand shower in its holder. */
function hand(out: MeshBuilder, hose: MeshBuilder, y: number, z: number, foot: number): void {
  out.add(rod([v3(0, y - 0.06, z - 0.17), v3(0, y - 0.075, z - 0.05), v3(0, y - 0.1, z)], (t) => 0.011 + 0.004 * t, { section: 16 }));
  out.add(rod([v3(0, y - 0.094, z + 0.006), v3(0, y - 0.116, z - 0.008)], 0.048, { section: 28 }));
  const low = Math.max(0.03, Math.min(foot - 0.2, z - 0.7));
  hose.add(
    rod(
      curve(
        [v3(0, y - 0.06, z - 0.17), v3(0.03, y - 0.06, z - 0.4), v3(0.09, y - 0.05, low), v3(0.07, y - 0.046, low + 0.1), v3(0.03, y - 0.045, foot - 0.02)],
        isLight() ? 3 : 8,
      ),
      0.007,
      { section: 10 },
    ),
  );
}

function showerSet({ width, depth, height }: PieceSize, { form }: z.output<typeof setTraits>): Made[] {
  const y = depth / 2;
  const metal = new MeshBuilder();
  const hose = new MeshBuilder();
  const reach = Math.max(0.1, depth - Math.min(0.1, depth * 0.3));
  const valve = Math.min(0.08, height * 0.3);
  if (form === 'valve') {
    // Its body is in the wall: a plate with two knobs shows.
    metal.add(roundedBox(v3(-Math.min(0.045, width / 2), y - 0.008, 0.01), v3(Math.min(0.045, width / 2), y, height - 0.01), { radius: 0.004, steps: 3 }));
    for (const z of [height * 0.32, height * 0.68]) metal.add(rod([v3(0, y - 0.007, z), v3(0, y - 0.055, z)], 0.021, { section: 24 }));
  } else if (form === 'head') {
    const z = height - 0.03;
    metal
      .add(roseOn(0, y, z, 0.03, 0.01))
      .add(
        rod(
          curve(
            [v3(0, y - 0.004, z), v3(0, y - reach * 0.6, z), v3(0, y - reach * 0.92, z - 0.002), v3(0, y - reach, z - 0.012), v3(0, y - reach, 0.03)],
            isLight() ? 2 : 4,
          ),
          0.011,
          { section: 16 },
        ),
      );
    metal.add(rain(0, y - reach, Math.max(0.0004, height - 0.09), Math.min(0.11, width / 2)));
  } else if (form === 'hand shower') {
    metal.add(roseOn(0, y, valve, 0.028, 0.012)).add(rod([v3(0, y - 0.008, valve), v3(0, y - 0.05, valve)], 0.012, { section: 14 }));
    metal.add(roseOn(0, y, height - 0.12, 0.024, 0.012)).add(rod([v3(0, y - 0.008, height - 0.12), v3(0, y - 0.062, height - 0.1)], 0.012, { section: 14 }));
    hand(metal, hose, y, height - 0.02, valve);
  } else {
    thermostat(metal, y, valve, Math.min(width, 0.3));
    const rail = y - 0.06;
    const both = form === 'riser and head';
    const top = both ? height - 0.03 : height - 0.02;
    metal.add(
      both
        ? rod(
            curve(
              [v3(0, rail, valve + 0.01), v3(0, rail, top - 0.1), v3(0, rail - 0.02, top - 0.02), v3(0, rail - 0.1, top), v3(0, y - reach, top)],
              isLight() ? 3 : 6,
            ),
            0.011,
            { section: 16 },
          )
        : rod([v3(0, rail, valve + 0.09), v3(0, rail, top)], 0.011, { section: 16 }),
    );
    for (const z of both ? [top - 0.18] : [valve + 0.14, top - 0.06])
      metal.add(roseOn(0, y, z, 0.022, 0.01)).add(rod([v3(0, y - 0.006, z), v3(0, rail, z)], 0.008, { section: 12 }));
    if (both) metal.add(post(0, y - reach, top - 0.04, top - 0.004, 0.012, 0.012, 14)).add(rain(0, y - reach, top - 0.07, Math.min(0.12, width / 2)));
    hand(metal, hose, y, both ? top - 0.62 : top - 0.16, valve);
  }
  return [
    { part: 'metal', mesh: metal.build() },
    { part: 'hose', mesh: hose.build() },
  ].filter((p) => p.mesh.indices.length);
}

/** All of a shower in a corner: its tray, a screen at its right, a column at the wall behind. */
function wholeShower({ width, depth, height }: PieceSize): Made[] {
  // It stands a hair off the walls, so that no two faces lie in one plane.
  const own = { width: width - 0.0012, depth: depth - 0.0012, height: 0.04 };
  const at = (made: Made[], from: string, part: string): Made[] => made.filter((p) => p.part === from).map((p) => ({ ...p, part }));
  const base = tray(own, { form: 'rectangular', waste: 'middle' });
  const x = width / 2 - 0.0006 - RIM / 2;
  const foot = own.height + 0.0004;
  const [y0, y1] = [-depth / 2 + 0.03, depth / 2 - 0.0006];
  const frame = new MeshBuilder()
    .add(profile(x - 0.008, y0, foot, x + 0.008, y1, foot + FREE - 0.002))
    .add(profile(x - 0.012, y1 - PROFILE, foot + FREE - 0.0016, x + 0.012, y1, height));
  const screen_ = paneAcross(y0, y1 - PROFILE * 0.5, foot + FREE - 0.001, height - 0.002, x);
  const column = showerSet({ width: 0.3, depth: Math.min(0.46, depth * 0.5), height: 1.1 }, { form: 'riser and head' });
  const rail = new MeshBuilder();
  for (const { mesh } of column) rail.add(mesh, [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, depth / 2 - 0.0006 - Math.min(0.46, depth * 0.5) / 2, height - 1.1, 1]);
  return [
    ...at(base, 'tray', 'tray'),
    { part: 'screen', mesh: screen_ },
    { part: 'frame', mesh: frame.build() },
    { part: 'rail', mesh: rail.add(base[1].mesh).build() },
  ];
}

export const showers: StockItem[] = [
  maker({
    id: 'shower',
    name: 'Shower',
    category: 'Bathroom',
    size: { width: 0.9, depth: 0.9, height: 2.05 },
    min: { width: 0.7, depth: 0.7, height: 1.85 },
    max: { width: 1.8, depth: 1.2, height: 2.4 },
    mount: 'floor',
    wet: ({ width, depth }) => rectangle(width, depth),
    parts: { tray: 'ceramic.white', screen: 'glass.clear', rail: 'metal.chrome', frame: 'metal.chrome' },
    words: 'tray cubicle screen bathroom',
    sold: { supplier: 'Sluice & Penn', price: 760 },
    clear: { front: 0.7 },
    connections: ['water', 'waste'],
    make: wholeShower,
    symbol: ({ width, depth }) => [
      outline(rectangle(width, depth)),
      outline(ringOf({ width: width - 2 * RIM, depth: depth - 2 * RIM, z: 0, radius: 0.02 }, 6).map(({ x, y }) => ({ x, y }))),
      outline(circle(0.055)),
      stroke([-width / 2 + 0.045, -depth / 2 + 0.045], [-0.05, -0.04]),
      stroke([width / 2 - 0.045, depth / 2 - 0.045], [0.05, 0.04]),
      stroke([width / 2 - 0.022, -depth / 2 + 0.02], [width / 2 - 0.022, depth / 2]),
    ],
  }),
  maker({
    id: 'shower-tray',
    name: 'Shower tray',
    category: 'Bathroom',
    traits: trayTraits,
    size: { width: 0.9, depth: 0.9, height: 0.04 },
    min: { width: 0.7, depth: 0.7, height: 0.018 },
    max: { width: 2, depth: 1.4, height: 0.16 },
    mount: 'floor',
    wet: (size, traits) => outlineOf(size, traits, 0),
    fixed: true,
    lies: true,
    parts: { tray: 'ceramic.white', waste: 'metal.chrome' },
    words: 'bathroom base',
    sold: { supplier: 'Sluice & Penn', price: 260 },
    clear: { front: 0.7 },
    connections: ['water', 'waste'],
    cards: [
      { id: 'tray-800', name: 'Shower tray, 800', size: { width: 0.8, depth: 0.8, height: 0.04 } },
      { id: 'tray-900', name: 'Shower tray, 900' },
      { id: 'tray-1000', name: 'Shower tray, 1000', size: { width: 1, depth: 1, height: 0.04 } },
      { id: 'tray-1200', name: 'Shower tray, 1200 × 900', size: { width: 1.2, depth: 0.9, height: 0.04 }, traits: { waste: 'left' } },
      { id: 'tray-1600', name: 'Shower tray, 1600 × 800', size: { width: 1.6, depth: 0.8, height: 0.04 }, traits: { waste: 'right' }, words: 'walk in' },
      { id: 'tray-level', name: 'Level shower tray, 1000', size: { width: 1, depth: 1, height: 0.02 }, words: 'wheelchair flush' },
      { id: 'tray-level-wide', name: 'Level shower tray, 1400 × 1000', size: { width: 1.4, depth: 1, height: 0.02 }, words: 'wheelchair flush' },
      { id: 'tray-quadrant', name: 'Quadrant tray, left', traits: { form: 'quadrant left' } },
      { id: 'tray-quadrant-right', name: 'Quadrant tray, right', traits: { form: 'quadrant right' } },
    ],
    make: tray,
    symbol(size, traits) {
      const waste = trayWaste(size, traits);
      const [w, d] = [size.width / 2 - RIM, size.depth / 2 - RIM];
      const corners: [number, number][] =
        traits.form === 'rectangular'
          ? [
              [-w, -d],
              [w, -d],
              [w, d],
              [-w, d],
            ]
          : [
              [-w * 0.9, d * 0.9],
              [w * 0.9, d * 0.9],
            ];
      return [
        outline(outlineOf(size, traits, 0)),
        outline(outlineOf(size, traits, RIM)),
        outline(circle(waste.radius, waste.x, waste.y, 18)),
        ...corners.map(([x, y]) => {
          const l = Math.hypot(x - waste.x, y - waste.y);
          return stroke([x, y], [waste.x + ((x - waste.x) * waste.radius) / l, waste.y + ((y - waste.y) * waste.radius) / l]);
        }),
      ];
    },
  }),
  maker({
    id: 'shower-screen',
    name: 'Shower screen',
    category: 'Bathroom',
    traits: screenTraits,
    size: { width: 1, depth: 0.9, height: 2 },
    min: { width: 0.6, depth: 0.05, height: 1.3 },
    max: { width: 2, depth: 1.4, height: 2.3 },
    mount: 'floor',
    parts: { glass: 'glass.clear', fronts: 'glass.clear', frame: 'metal.chrome', handles: 'metal.chrome' },
    words: 'glass door enclosure wet room',
    sold: { supplier: 'Sluice & Penn', price: 420 },
    cards: [
      { id: 'screen-fixed', name: 'Fixed screen' },
      { id: 'screen-fixed-wide', name: 'Fixed screen, 1200', size: { width: 1.2, depth: 0.9, height: 2 }, words: 'walk in' },
      { id: 'screen-reeded', name: 'Reeded screen', finishes: { glass: 'glass.reeded' }, traits: { frame: 'slim' } },
      { id: 'screen-hinged', name: 'Hinged shower door', size: { width: 0.8, depth: 0.05, height: 2 }, traits: { form: 'hinged' } },
      {
        id: 'screen-hinged-wide',
        name: 'Hinged shower door, 900',
        size: { width: 0.9, depth: 0.05, height: 2 },
        traits: { form: 'hinged', hung: 'right', frame: 'slim' },
      },
      { id: 'screen-sliding', name: 'Sliding shower door', size: { width: 1.2, depth: 0.06, height: 2 }, traits: { form: 'sliding', frame: 'slim' } },
      { id: 'screen-corner', name: 'Corner enclosure', size: { width: 0.9, depth: 0.9, height: 2 }, traits: { form: 'corner' } },
      { id: 'screen-quadrant', name: 'Quadrant enclosure, left', size: { width: 0.9, depth: 0.9, height: 2 }, traits: { form: 'quadrant left' } },
      { id: 'screen-quadrant-right', name: 'Quadrant enclosure, right', size: { width: 0.9, depth: 0.9, height: 2 }, traits: { form: 'quadrant right' } },
      { id: 'screen-bath', name: 'Bath screen', size: { width: 0.8, depth: 0.05, height: 1.4 }, traits: { form: 'over a bath' } },
    ],
    make: screen,
    symbol: screenSymbol,
  }),
  maker({
    id: 'shower-set',
    name: 'Shower fittings',
    category: 'Bathroom',
    traits: setTraits,
    size: { width: 0.3, depth: 0.16, height: 1.1 },
    min: { width: 0.16, depth: 0.14, height: 0.18 },
    max: { width: 0.4, depth: 0.55, height: 1.5 },
    mount: 'wall',
    foot: 0.95,
    parts: { metal: 'metal.chrome', hose: 'metal.chrome' },
    words: 'shower head thermostat mixer riser rail rain',
    sold: { supplier: 'Sluice & Penn', price: 310 },
    connections: ['water'],
    cards: [
      { id: 'shower-riser', name: 'Shower on a rail' },
      { id: 'shower-rain', name: 'Rain shower on a column', size: { width: 0.3, depth: 0.46, height: 1.2 }, traits: { form: 'riser and head' } },
      { id: 'shower-head', name: 'Shower head on an arm', size: { width: 0.24, depth: 0.4, height: 0.2 }, traits: { form: 'head' } },
      { id: 'shower-hand', name: 'Hand shower in a holder', size: { width: 0.2, depth: 0.16, height: 1 }, traits: { form: 'hand shower' } },
      { id: 'shower-valve', name: 'Concealed shower valve', size: { width: 0.16, depth: 0.14, height: 0.22 }, traits: { form: 'valve' } },
    ],
    make: showerSet,
    symbol: ({ width, depth }, { form }) =>
      form === 'head' || form === 'riser and head'
        ? [
            stroke([0, depth / 2], [0, -depth / 2 + Math.min(0.1, depth * 0.3)]),
            outline(circle(Math.min(0.1, width / 2, depth * 0.3), 0, -depth / 2 + Math.min(0.1, depth * 0.3), 20)),
          ]
        : [outline(rectangle(Math.min(width, 0.3), 0.05, 0, depth / 2 - 0.03)), outline(circle(0.03, 0, depth / 2 - 0.06, 14))],
  }),
];
