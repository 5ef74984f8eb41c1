import { addressOf, type Target, targetName } from '../project/targets';
import { deriveModel } from '../model/derive';
import type { Model } from '../model/model';
import { finishIn } from '../finishes/store';
import { choices, withScheme } from '../project/choices';
import type { Project } from '../project/schema';
import { finishCost } from './costs';

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
  const differences = addresses
    .filter((a) => chosen[0].get(a)?.finish !== chosen[1].get(a)?.finish)
    .map((address): Difference => {
      const i = chosen[0].has(address) ? 0 : 1;
      const target: Target = chosen[i].get(address)!.target;
      return { address, what: targetName(sides[i], target), first: name(0, address), second: name(1, address) };
    })
    .sort((a, b) => (a.what < b.what ? -1 : 1));
  return { differences, costs: [finishCost(derive(first)), finishCost(derive(second))] };
}
