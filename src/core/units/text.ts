/**
 * Text cut to a length, never through the middle of a character.
 *
 * @param longest UTF-16 units it may have
 */
export const cutText = (text: string, longest: number): string => text.slice(0, longest).replace(/[\ud800-\udbff]$/, '');
