import type { Model } from '../model/model';
import { formName, KIND_NAMES } from '../project/opening-defaults';
import { totalArea } from '../geometry/polygon';
import { distance } from '../geometry/vec';
import { edgeOf } from '../project/roofs';
import { wallLength } from '../project/wall-line';
import { clearWidth } from '../shell/openings/sizes';

/** One row of the wall schedule. SI units. */
export interface WallRow {
  id: string;
  level: string;
  type: string;
  status: string;
  /** Along its reference line. */
  length: number;
  thickness: number;
  height: number;
  /** Its faces between floor and ceiling, openings taken off, m². */
  faceArea: number;
  /** Rooms at its left and right; empty outside. */
  left: string;
  right: string;
}

/** One row of the opening schedule. SI units. */
export interface OpeningRow {
  id: string;
  level: string;
  name: string;
  kind: string;
  form: string;
  status: string;
  width: number;
  height: number;
  sill: number;
  /** Free width of a doorway when it stands open; of windows and niches their width. */
  clear: number;
  from: string;
  to: string;
}

const byName = <T extends { level: string; name?: string; id: string }>(a: T, b: T): number =>
  a.level < b.level ? -1 : a.level > b.level ? 1 : (a.name ?? a.id) < (b.name ?? b.id) ? -1 : 1;

/** All walls of the phase shown, by level. */
export function wallSchedule(model: Model): WallRow[] {
  const { project, levels } = model.shell;
  const room = (ids: (string | null)[]): string =>
    [...new Set(ids.map((id) => (id === null ? '' : (project.rooms[id]?.name ?? ''))))].filter(Boolean).join(', ');
  return levels
    .flatMap((level) =>
      level.walls
        .filter((w) => w.wall.kind === 'wall')
        .map((w): WallRow => ({
          id: w.id,
          level: level.level.name,
          type: w.wall.type === null ? '' : (project.wallTypes[w.wall.type]?.name ?? ''),
          status: w.wall.status,
          length: wallLength(project, w.wall),
          thickness: w.thickness,
          height: w.height - w.foot,
          faceArea: w.sides.reduce((sum, s) => sum + s.area, 0),
          left: room(w.sides.filter((s) => s.side === 'left').map((s) => s.room)),
          right: room(w.sides.filter((s) => s.side === 'right').map((s) => s.room)),
        })),
    )
    .sort(byName);
}

/** All doors, windows, pass-throughs, niches and rooflights of the phase shown, by level and name. */
export function openingSchedule(model: Model): OpeningRow[] {
  const { project, levels } = model.shell;
  const room = (id: string | null): string => (id === null ? 'outside' : (project.rooms[id]?.name ?? ''));
  return levels
    .flatMap((level) => [
      ...level.rooflights.map(({ rooflight: r, room: within, height }): OpeningRow => ({
        id: r.id,
        level: level.level.name,
        name: r.name,
        kind: 'Rooflight',
        form: r.form,
        status: r.status,
        width: r.width,
        height: r.length,
        sill: height,
        clear: r.width,
        from: room(within),
        to: 'sky',
      })),
      ...level.openings.map(({ opening: o, rooms }): OpeningRow => ({
        id: o.id,
        level: level.level.name,
        name: o.name,
        kind: KIND_NAMES[o.kind],
        form: formName(o.kind, o.form),
        status: o.status,
        width: o.width,
        height: o.height,
        sill: o.sill,
        clear: clearWidth(o),
        from: room(rooms.left),
        to: room(rooms.right),
      })),
    ])
    .sort(byName);
}

/** One row of the roof schedule. SI units. */
export interface RoofRow {
  id: string;
  level: string;
  name: string;
  form: string;
  status: string;
  /** Pitches of its planes, degrees, from the flattest. */
  pitches: string;
  /** Of its plan with the overhangs, and along its planes, m². */
  planArea: number;
  slopingArea: number;
  /** Edges that drain to an eave, metres. */
  eaves: number;
  /** Its highest point above the floor of its level. */
  top: number;
}

/** All roofs of the phase shown, by level and name. */
export function roofSchedule(model: Model): RoofRow[] {
  return model.shell.levels
    .flatMap((level) =>
      level.roofs.map(({ shape, area }): RoofRow => {
        const { roof, outlines, lines, upper, top } = shape;
        const pitches = upper.flatMap((q) => (q.plane ? [Math.round((Math.atan(Math.hypot(q.plane.gx, q.plane.gy)) * 180) / Math.PI)] : []));
        // Edges with their overhangs, in the order of the lines below them.
        const lengths = outlines.flatMap(({ outer, holes }) =>
          [outer, ...holes].flatMap((ring) => ring.map((p, i) => distance(p, ring[(i + 1) % ring.length]))),
        );
        return {
          id: roof.id,
          level: level.level.name,
          name: roof.name,
          form: roof.form,
          status: roof.status,
          pitches: [...new Set(pitches)].sort((a, b) => a - b).join(', '),
          planArea: totalArea(outlines),
          slopingArea: area,
          eaves: lines.reduce((sum, l, i) => (edgeOf(roof, l.key).form === 'slope' ? sum + lengths[i] : sum), 0),
          top,
        };
      }),
    )
    .sort(byName);
}
