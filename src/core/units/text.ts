/**
 * Text cut to a length, never through the middle of a character.
 *
 * @param longest UTF-16 units it may have
 */
export const cutText = (text: string, longest: number): string => text.slice(0, longest).replace(/[\ud800-\udbff]$/, '');

/** A count with its word: 1 place, 3 places. @param many the word for several, where that is not with an s */
export const counted = (count: number, one: string, many = `${one}s`): string => `${count} ${count === 1 ? one : many}`;

/**
 * Whether a text has all the words of what is looked for, each at the beginning of one of its own words or within a longer one.
 * One in the plural finds the singular.
 */
export function findsAll(text: string, find: string): boolean {
  const within = text.toLowerCase();
  return find
    .trim()
    .toLowerCase()
    .split(/\s+/)
    .every((word) => within.includes(word) || (word.length > 3 && word.endsWith('s') && within.includes(word.slice(0, -1))));
}

/** A day as files are sorted by it: 2026-11-28. */
const day = (at: Date): string => [at.getFullYear(), at.getMonth() + 1, at.getDate()].map((n) => String(n).padStart(2, '0')).join('-');

/** The name of a file that is handed over: by project, what it is, and the day it was made. @param ending with its point */
export const fileName = (project: string, what: string, at: Date, ending: string): string =>
  `${[project, what, day(at)]
    .filter(Boolean)
    .join(', ')
    .replace(/[/\\:*?"<>|]+/g, '-')}${ending}`;
