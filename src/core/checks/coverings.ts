import type { Model } from '../model/model';
import { openingOf, revealOf } from '../project/hanging';
import { formatLength } from '../units/length';
import type { Finding } from './finding';

/** Less than this nobody minds, metres. */
const SLIGHT = 0.005;

/** Checks of what hangs at windows: whether it is made as large as its window asks, and has room in its recess. */
export function coveringFindings(model: Model): Finding[] {
  const { project } = model;
  const say = (metres: number): string => formatLength(metres, project.units);
  return model.pieces.flatMap(({ piece, item }): Finding[] => {
    const { hangs, name, size } = piece;
    // In a phase its window may not be there.
    if (!hangs || !item || !project.openings[hangs.opening]) return [];
    const opening = openingOf(project, hangs);
    const ids = [piece.id, opening.id];
    const out: Finding[] = [];
    for (const [key, word] of [
      ['width', 'wide'],
      ['height', 'high'],
    ] as const) {
      const [least, most] = [item.min[key], item.max[key]];
      if (size[key] > most + SLIGHT)
        out.push({
          code: 'covering.large',
          message: `${name} at ${opening.name} would be ${say(size[key])} ${word}: it is made up to ${say(most)}; hang more than one.`,
          ids,
        });
      else if (size[key] < least - SLIGHT)
        out.push({ code: 'covering.small', message: `${name} at ${opening.name} would be ${say(size[key])} ${word}: it is made from ${say(least)} on.`, ids });
    }
    if (hangs.where === 'recess' && opening.kind !== 'passage') {
      const reveal = revealOf(project, opening, hangs.side);
      if (size.depth - reveal > SLIGHT)
        out.push({
          code: 'covering.proud',
          message: `${name} stands ${say(size.depth - reveal)} out of the recess of ${opening.name}, which is ${say(reveal)} deep.`,
          ids,
        });
    }
    return out;
  });
}
