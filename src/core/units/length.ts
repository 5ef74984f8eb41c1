import { FOOT, INCH, readLength, TwoWays, type UnitSystem } from './length-reading';
import { TIGHT } from './tolerance';

/** Lengths as people write them. Inside, a length is metres; here is the only place where that is translated. */

export { FOOT, INCH, type UnitSystem };

/** What `parseLength` answers: metres, or one sentence for people. */
export type ParsedLength = { ok: true; metres: number } | { ok: false; message: string };

/**
 * Reads a length as people type it: `3450`, `3 450`, `3.45 m`, `3 m 45`, `11'-4 1/2"`, `2 x 600`, `=3600-2*45`.
 * A number without a unit is millimetres in the metric system and inches in the imperial one.
 *
 * @returns metres, or a sentence that says what could not be read, or in which two ways it could be
 */
export function parseLength(text: string, system: UnitSystem): ParsedLength {
  const source = text.trim();
  const example = system === 'metric' ? '3450, 3.45 m or =3600-2*45' : `11'-4 1/2", 136 1/2 or =12' - 2*4 1/2"`;
  if (!source) return { ok: false, message: `Type a length, for example ${example}.` };
  let metres: number | null;
  try {
    metres = readLength(source, system);
  } catch (error) {
    if (!(error instanceof TwoWays)) throw error;
    return { ok: false, message: `“${source}” can be read in two ways: ${error.ways}.` };
  }
  if (metres === null || !Number.isFinite(metres)) return { ok: false, message: `“${source}” is not a length. Type, for example, ${example}.` };
  // A hundredth of a micrometre is below anything typed; it removes binary dust such as 3.4499999999999997.
  return { ok: true, metres: Math.round(metres * 1e8) / 1e8 };
}

/** The shortest and the longest that is built, metres. */
export const SIZES = { least: 0.01, most: 500 } as const;

/**
 * Reads the size of something that is built, new or changed.
 *
 * @returns metres, or a sentence that says what could not be read or built
 */
export function parseSize(text: string, system: UnitSystem, least: number = SIZES.least): ParsedLength {
  const parsed = parseLength(text, system);
  if (!parsed.ok || (parsed.metres >= least - TIGHT && parsed.metres <= SIZES.most + TIGHT)) return parsed;
  const [low, high] =
    system === 'metric' ? [`${formatLength(least, system)} mm`, `${SIZES.most} m`] : [formatLength(least, system), `${Math.floor(SIZES.most / FOOT)} ft`];
  return { ok: false, message: `“${text.trim()}” can’t be built; nothing was changed. Type a length between ${low} and ${high}.` };
}

/**
 * Writes a length for people: whole millimetres, or feet, inches and sixteenths as on a drawing.
 *
 * @param metres length in metres
 */
export function formatLength(metres: number, system: UnitSystem): string {
  if (system === 'metric') return String(Math.round(metres * 1000) + 0);
  return feetAndInches(metres, 16);
}

/** Feet, inches and a fraction of lowest terms: 8'-2 7/16". @param parts of an inch that are told apart */
function feetAndInches(metres: number, parts: number): string {
  const count = Math.round(Math.abs(metres / INCH) * parts);
  const sign = metres < 0 && count > 0 ? '−' : '';
  const feet = Math.floor(count / (12 * parts));
  const inches = Math.floor((count % (12 * parts)) / parts);
  let top = count % parts;
  let bottom = parts;
  while (top > 0 && top % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  const fraction = top ? `${top}/${bottom}` : '';
  const inchText = [inches || !fraction || feet ? String(inches) : '', fraction].filter(Boolean).join(' ');
  return feet === 0 ? `${sign}${inchText}"` : `${sign}${feet}'-${inchText}"`;
}

/**
 * Writes a length for an entry field: tenths of a micrometre are kept in millimetres; feet and inches are written as on a
 * drawing, to the sixty-fourth where that is exact, else to the nearest sixteenth. A field that is left as it is changes nothing.
 */
export function formatLengthExact(metres: number, system: UnitSystem): string {
  if (system === 'imperial') {
    const exact = Math.abs(Math.round((metres / INCH) * 64) * (INCH / 64) - metres) < TIGHT;
    return feetAndInches(metres, exact ? 64 : 16);
  }
  const short = formatLength(metres, system);
  const back = parseLength(short, system);
  return back.ok && Math.abs(back.metres - metres) < TIGHT ? short : String(Math.round(metres * 1e6) / 1e3);
}

/** Writes an area in square metres for people: `26.2 m²` or `282 sq ft`. */
export function formatArea(squareMetres: number, system: UnitSystem): string {
  return system === 'metric' ? `${squareMetres.toFixed(1)} m²` : `${Math.round(squareMetres / (FOOT * FOOT))} sq ft`;
}

/** The nearest multiple of the unit system's snap step (5 mm; 1/2 in), in metres. */
export function snapStep(metres: number, system: UnitSystem): number {
  const step = system === 'metric' ? 0.005 : INCH / 2;
  return Math.round(Math.round(metres / step) * step * 1e8) / 1e8;
}

/** Metres to a micrometre, as lengths are kept that were worked out. */
export const micro = (metres: number): number => Math.round(metres * 1e6) / 1e6;
