import Papa from 'papaparse';
import type { Model } from '../model/model';
import { finishIn } from '../finishes/store';
import type { WallSide } from '../shell/wall-types';

/** One row of the room schedule. SI units. */
export interface RoomRow {
  id: string;
  level: string;
  name: string;
  /** Clear floor area, m². */
  area: number;
  /** Of it, what has 1.5 m or more over it, m². */
  highArea: number;
  perimeter: number;
  height: number;
  volume: number;
  /** Walls without openings, m². */
  wallArea: number;
  doors: number;
  windows: number;
  use: string;
  status: string;
  /** Height of its floor above that of the level. */
  step: number;
  floor: string;
  walls: string;
  ceiling: string;
}

/** The room schedule: areas, heights, openings and finishes, by level and name. */
export function roomSchedule(model: Model): RoomRow[] {
  const { project } = model.shell;
  const name = (id: string | null): string => (id ? finishIn(project, id).name : '');
  return model.shell.levels.flatMap((level) =>
    level.rooms
      .filter((room) => room.room.use !== 'duct')
      .map((room): RoomRow => {
        const openings = new Set(room.sides.flatMap((s) => s.openings));
        const kinds = [...openings].map((id) => project.openings[id].kind);
        const own = new Set([room.room.walls, ...room.sides.map((s: WallSide) => room.room.faces[s.key] ?? room.room.walls)]);
        return {
          id: room.id,
          level: level.level.name,
          name: room.room.name,
          area: room.area,
          highArea: room.highArea,
          perimeter: room.perimeter,
          height: room.height,
          volume: room.area * room.height,
          wallArea: room.sides.reduce((sum, s) => sum + s.area, 0),
          doors: kinds.filter((k) => k === 'door').length,
          windows: kinds.filter((k) => k === 'window').length,
          use: room.room.use === 'unnamed' ? '' : room.room.use,
          status: room.room.status,
          step: room.room.step,
          floor: name(room.room.floor),
          walls: [...own]
            .filter(Boolean)
            .map((id) => name(id))
            .join(', '),
          ceiling: name(room.room.ceiling),
        };
      })
      .sort((a, b) => (a.name < b.name ? -1 : 1)),
  );
}

/**
 * Rows as CSV (RFC 4180) with a heading line. Text that a spreadsheet would take for a formula (it begins with = + - @, tab or return) gets an
 * apostrophe before it, as the OWASP recommends against CSV injection; numbers stay numbers.
 */
export function toCsv(rows: readonly object[]): string {
  if (!rows.length) return '';
  // What is worked with further is no column.
  const columns = Object.entries(rows[0]).flatMap(([k, v]) => (Array.isArray(v) ? [] : [k]));
  const plain = rows.map((row) => Object.fromEntries(Object.entries(row).map(([k, v]) => [k, typeof v === 'number' ? Math.round(v * 1e4) / 1e4 : v])));
  return `${Papa.unparse(plain, { columns, escapeFormulae: /^[=+\-@\t\r]/, newline: '\r\n' })}\r\n`;
}
