import type { Cabinet } from '../project/schema/cabinets';
import { formatLengthExact, type UnitSystem } from '../units/length';
import { readLine } from './said';

/** A unit in the words a line says it with: "600 drawers", "rest door". */
export const sayUnit = ({ width, name }: Pick<Cabinet, 'width' | 'name'>, system: UnitSystem): string =>
  `${width === null ? 'rest' : formatLengthExact(width, system)} ${name}`;

/** A run in one line, from the left as one sees it. @param units of one run */
export const sayRun = (units: readonly Cabinet[], system: UnitSystem): string =>
  inOrder(units)
    .map((u) => sayUnit(u, system))
    .join(', ');

/** A unit that keeps to no unit which is not there. */
const letGoOf = (u: Cabinet, ids: ReadonlySet<string>): Cabinet => ({
  ...u,
  middle: u.middle?.of === 'unit' && !ids.has(u.middle.id) ? null : u.middle,
  like: u.like !== null && !ids.has(u.like) ? null : u.like,
});

/** Units in the order they stand. */
export const inOrder = (units: readonly Cabinet[]): Cabinet[] => [...units].sort((a, b) => a.order - b.order);

/** Units in the order of their marks: what stands, then what hangs, each from the left. */
export const inMarks = (units: readonly Cabinet[]): Cabinet[] => {
  const all = inOrder(units);
  return [...all.filter((u) => u.band !== 'wall'), ...all.filter((u) => u.band === 'wall')];
};

/** The longest list of pairs that stand in the same order in both lists (Hunt and Szymanski's problem, by dynamic programming). */
function inCommon(a: readonly string[], b: readonly string[]): [number, number][] {
  const best = Array.from({ length: a.length + 1 }, () => new Array<number>(b.length + 1).fill(0));
  for (let i = a.length - 1; i >= 0; i--)
    for (let j = b.length - 1; j >= 0; j--) best[i][j] = a[i] === b[j] ? best[i + 1][j + 1] + 1 : Math.max(best[i + 1][j], best[i][j + 1]);
  const out: [number, number][] = [];
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    if (a[i] === b[j]) out.push([i++, j++]);
    else if (best[i + 1][j] >= best[i][j + 1]) i++;
    else j++;
  }
  return out;
}

const plain = (text: string): string => text.trim().toLowerCase().replace(/\s+/g, ' ');

/**
 * The units of a run after its line was typed anew. A unit that is still said as it was stays what it is, whatever was changed of
 * it apart from its words; one in the place of another with another width alone keeps all but that width.
 *
 * @param before units of the run
 * @returns the units, or one sentence on what was not understood
 */
export function unitsFrom(
  line: string,
  run: string,
  before: readonly Cabinet[],
  system: UnitSystem,
  newId: () => string,
): { ok: true; units: Cabinet[] } | { ok: false; message: string } {
  const read = readLine(line, system);
  if (!read.ok) return { ok: false, message: read.message };
  const old = inOrder(before);
  const kept = new Map(
    inCommon(
      old.map((u) => plain(sayUnit(u, system))),
      read.units.map((u) => plain(u.text)),
    ).map(([i, j]) => [j, old[i]]),
  );
  const free = old.filter((u) => ![...kept.values()].includes(u));
  const units = read.units.map((said, order): Cabinet => {
    const own = kept.get(order);
    if (own) return { ...own, order };
    // The same kind with another width, between the same neighbours.
    const same = free.findIndex((u) => u.name === said.word);
    if (same >= 0) return { ...free.splice(same, 1)[0], width: said.width, order };
    return {
      id: newId(),
      name: said.word,
      run,
      order,
      band: said.band,
      width: said.width,
      height: null,
      depth: null,
      front: said.front,
      corner: said.corner ? 'L' : null,
      middle: null,
      like: null,
      look: {},
      backless: said.backless,
      bare: said.bare,
      fittings: said.fittings,
      open: 0,
      finishes: said.finishes,
    };
  });
  const ids = new Set(units.map((u) => u.id));
  return { ok: true, units: units.map((u) => letGoOf(u, ids)) };
}
