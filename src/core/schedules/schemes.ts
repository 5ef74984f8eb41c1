import { runChange } from '../project/commands';
import type { SchemeKit } from '../project/scheme-kit';
import { addressOf, roomOfTarget, type Target, targetName } from '../project/targets';
import { deriveModel } from '../model/derive';
import type { Model } from '../model/model';
import { profileIn } from '../finishes/profiles';
import { finishIn } from '../finishes/store';
import { formatLength } from '../units/length';
import { choices, withScheme } from '../project/choices';
import type { Project } from '../project/schema';
import { styleIn } from '../cabinetry/styles';
import { roomOfRun } from '../project/runs';
import { schemeCost } from './costs';

/** One thing two schemes have chosen differently. */
export interface Difference {
  address: string;
  what: string;
  /** Names of the finishes; empty where nothing is chosen. */
  first: string;
  second: string;
}

/**
 * What two schemes of a project have chosen differently, and what each costs in the money of the project.
 *
 * @param derive the model of the project with a scheme in hand
 */
export function compareSchemes(
  project: Project,
  first: string,
  second: string,
  derive: (scheme: string) => Model = (id) => deriveModel(withScheme(project, id)),
): { differences: Difference[]; costs: [number, number] } {
  const sides = [withScheme(project, first), withScheme(project, second)];
  const chosen = sides.map((p) => new Map([...choices(p)].map((c) => [addressOf(c.target), c] as const)));
  const addresses = [...new Set([...chosen[0].keys(), ...chosen[1].keys()])];
  const name = (i: number, address: string): string => {
    const own = chosen[i].get(address);
    return own ? finishIn(sides[i], own.finish).name : '';
  };
  const finishes = addresses
    .filter((a) => chosen[0].get(a)?.finish !== chosen[1].get(a)?.finish)
    .map((address): Difference => {
      const i = chosen[0].has(address) ? 0 : 1;
      const target: Target = chosen[i].get(address)!.target;
      return { address, what: targetName(sides[i], target), first: name(0, address), second: name(1, address) };
    });
  const differences = [...finishes, ...joinery(sides[0], sides[1])].sort((a, b) => (a.what < b.what ? -1 : 1));
  return { differences, costs: [schemeCost(derive(first)), schemeCost(derive(second))] };
}

const JOINERY = 'joinery/';

/** Runs that two schemes make in other styles, or apart from them in other ways. */
function joinery(first: Project, second: Project): Difference[] {
  const made = (p: Project, id: string): string => {
    const { style, look } = p.runs[id];
    const name = styleIn(p, style)?.name ?? 'no style';
    return Object.keys(look).length ? `${name}, changed` : name;
  };
  return Object.values(first.runs).flatMap(({ id, name, style, look }): Difference[] => {
    const other = second.runs[id];
    if (!other || (other.style === style && JSON.stringify(other.look) === JSON.stringify(look))) return [];
    return [{ address: `${JOINERY}${id}`, what: `${name}, joinery style`, first: made(first, id), second: made(second, id) }];
  });
}

/** One thing a kept scheme would change in a room: what it is, its finish before and after; empty where there is none. */
export interface TakenOver {
  what: string;
  first: string;
  second: string;
}

/**
 * What taking a kept scheme over would do, before it is done.
 *
 * @param id the new scheme gets
 * @returns the project as it would be; what changes, by rooms in the order of their names; and how many choices stay as they are
 * @throws DomainError where it would be refused
 */
export function takingOver(
  project: Project,
  id: string,
  kit: SchemeKit,
): { project: Project; rooms: { room: string; name: string; changes: TakenOver[] }[]; kept: number } {
  const after = runChange(project, { id: `look-${id}`, kind: 'do', command: 'scheme.from-kit', args: { id, kit } }).project;
  const sides = [project, after];
  const chosen = sides.map((p) => new Map([...choices(p)].map((c) => [addressOf(c.target), c] as const)));
  const look = (i: number, address: string): string => {
    const own = chosen[i].get(address);
    if (!own) return '';
    const name = finishIn(sides[i], own.finish).name;
    if (own.target.kind !== 'moulding') return name;
    const { profile, height } = sides[i].mouldings[own.target.moulding];
    const section = profileIn(sides[i], profile);
    return `${name}${section ? `, ${section.name}` : ''}${height === null ? '' : ` ${formatLength(height, sides[i].units)}`}`;
  };
  const rooms = new Map<string, TakenOver[]>();
  let kept = 0;
  for (const [address, { target }] of chosen[1]) {
    const [first, second] = [look(0, address), look(1, address)];
    const room = roomOfTarget(after, target);
    if (first === second || !room) {
      kept++;
      continue;
    }
    const what = target.kind === 'moulding' ? after.mouldings[target.moulding].name : target.kind === 'walls' ? wallsWord(after, room) : target.kind;
    rooms.set(room, [...(rooms.get(room) ?? []), { what, first, second }]);
  }
  for (const { address, what, first, second } of joinery(project, after)) {
    const run = after.runs[address.slice(JOINERY.length)];
    // What stands free is of its level.
    const room = roomOfRun(run) ?? run.level;
    rooms.set(room, [...(rooms.get(room) ?? []), { what, first, second }]);
  }
  const nameOf = (id: string): string => (Object.hasOwn(after.rooms, id) ? after.rooms[id] : after.levels[id]).name;
  return {
    project: after,
    rooms: [...rooms]
      .map(([room, changes]) => ({ room, name: nameOf(room), changes: changes.sort((a, b) => (a.what < b.what ? -1 : 1)) }))
      .sort((a, b) => a.name.localeCompare(b.name)),
    kept,
  };
}

/** Walls that have a finish of their own keep it, which is said. */
function wallsWord(project: Project, room: string): string {
  const own = Object.keys(project.rooms[room].faces).length;
  return own ? `walls, but for ${own} with ${own === 1 ? 'a finish of its' : 'finishes of their'} own` : 'walls';
}
