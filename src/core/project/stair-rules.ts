import { formatLength, type UnitSystem } from '../units/length';
import { NEAR, NIL } from '../units/tolerance';

/** What a stair must keep to (trade figures; a profile, not a code of law). Metres and radians. */
export interface StairRules {
  rise: { min: number; max: number };
  going: { min: number; max: number };
  /** Twice the rise and the going together. */
  stride: { min: number; max: number } | null;
  pitch: number | null;
  headroom: number;
  width: number;
  handrail: { min: number; max: number };
  guard: { inside: number; outside: number };
  /** A ball of this size must not pass through a guard. */
  gap: number;
  winder: {
    narrow: number;
    /** The walking line: a share of the width, or metres from the inner side. */
    line: { share: number } | { from: number };
  };
  spiral: { going: number; at: number; rise: number; headroom: number };
}

const degrees = (v: number): number => (v * Math.PI) / 180;

/** The profiles a stair may be drawn to: A metric, B imperial. */
export const STAIR_PROFILES: Record<'A' | 'B', StairRules> = {
  A: {
    rise: { min: 0.15, max: 0.22 },
    going: { min: 0.22, max: 0.3 },
    stride: { min: 0.55, max: 0.7 },
    pitch: degrees(42),
    headroom: 2,
    width: 0.8,
    handrail: { min: 0.9, max: 1 },
    guard: { inside: 0.9, outside: 1.1 },
    gap: 0.1,
    winder: { narrow: 0.05, line: { share: 0.5 } },
    spiral: { going: 0.145, at: 0.27, rise: 0.22, headroom: 2 },
  },
  B: {
    rise: { min: 0.1, max: 0.196 },
    going: { min: 0.254, max: 0.36 },
    stride: null,
    pitch: null,
    headroom: 2.032,
    width: 0.914,
    handrail: { min: 0.864, max: 0.965 },
    guard: { inside: 0.914, outside: 0.914 },
    gap: 0.102,
    winder: { narrow: 0.152, line: { from: 0.305 } },
    spiral: { going: 0.171, at: 0.305, rise: 0.241, headroom: 1.981 },
  },
};

/** One rule that a stair breaks. Metres, or radians for the pitch. */
export interface Breach {
  rule: 'rise' | 'going' | 'stride' | 'pitch' | 'width' | 'space' | 'winder' | 'headroom';
  is: number;
  limit: number;
  text: string;
}

export interface StairSizes {
  /** Number of risers, all equal. */
  risers: number;
  rise: number;
  going: number;
  pitch: number;
  breaches: Breach[];
}

export interface StairWish {
  /** From floor to floor, metres. */
  height: number;
  profile: 'A' | 'B';
  width: number;
  /** Fixed by the designer; null: chosen. */
  risers: number | null;
  going: number | null;
  /** The length there is for the goings, metres; null: as much as is wanted. */
  space: number | null;
  /** How many fewer goings than risers a stair has in that length: one for each flight. */
  flights: number;
  units: UnitSystem;
}

/** The stride people walk with at ease: two rises and a going (Blondel 1675), metres. */
const STRIDE = 0.63;
/** The rise that is easiest in a house, metres. */
const EASY = 0.175;

const SLACK = NEAR;

/** The going that suits a rise, within a profile: its stride at ease, no steeper than allowed. */
function easyGoing(rise: number, rules: StairRules): number {
  const least = Math.max(rules.going.min, rules.pitch === null ? 0 : rise / Math.tan(rules.pitch), rules.stride ? rules.stride.min - 2 * rise : 0);
  const most = Math.min(rules.going.max, rules.stride ? rules.stride.max - 2 * rise : Infinity);
  return Math.max(least, Math.min(most, STRIDE - 2 * rise));
}

function breachesOf(rise: number, going: number, wish: StairWish, needed: number): Breach[] {
  const rules = STAIR_PROFILES[wish.profile];
  const say = (v: number): string => formatLength(v, wish.units);
  const found: Breach[] = [];
  const add = (rule: Breach['rule'], is: number, limit: number, text: string): void => void found.push({ rule, is, limit, text });
  if (rise > rules.rise.max + SLACK)
    add('rise', rise, rules.rise.max, `Each step rises ${say(rise)}, more than the ${say(rules.rise.max)} of profile ${wish.profile}; add a riser.`);
  if (rise < rules.rise.min - SLACK)
    add('rise', rise, rules.rise.min, `Each step rises ${say(rise)}, less than the ${say(rules.rise.min)} of profile ${wish.profile}; take a riser away.`);
  if (going < rules.going.min - SLACK)
    add(
      'going',
      going,
      rules.going.min,
      `The going is ${say(going)}, less than the ${say(rules.going.min)} of profile ${wish.profile}; give the stair more length.`,
    );
  if (going > rules.going.max + SLACK)
    add('going', going, rules.going.max, `The going is ${say(going)}, more than the ${say(rules.going.max)} of profile ${wish.profile}; make it shorter.`);
  const stride = 2 * rise + going;
  if (rules.stride && (stride < rules.stride.min - SLACK || stride > rules.stride.max + SLACK)) {
    const limit = stride < rules.stride.min ? rules.stride.min : rules.stride.max;
    add('stride', stride, limit, `Two rises and a going make ${say(stride)}, outside ${say(rules.stride.min)} to ${say(rules.stride.max)}; change the going.`);
  }
  const pitch = Math.atan2(rise, going);
  if (rules.pitch !== null && pitch > rules.pitch + SLACK)
    add(
      'pitch',
      pitch,
      rules.pitch,
      `It climbs at ${Math.round((pitch * 180) / Math.PI)}°, steeper than the ${Math.round((rules.pitch * 180) / Math.PI)}° of profile ${wish.profile}; give it more length.`,
    );
  if (wish.width < rules.width - SLACK) add('width', wish.width, rules.width, `It is ${say(wish.width)} wide; ${say(rules.width)} is recommended.`);
  if (wish.space !== null && needed > wish.space + SLACK)
    add('space', needed, wish.space, `It needs ${say(needed)} of length, and there are ${say(wish.space)}; turn it, or fix a shorter going.`);
  return found;
}

/**
 * Risers and going of a stair from floor to floor: all risers equal, within the profile where that can be, and of all that
 * can the one that is easiest to walk. What cannot be kept is said rule by rule.
 */
export function solveStair(wish: StairWish): StairSizes {
  const rules = STAIR_PROFILES[wish.profile];
  const least = Math.max(2, Math.ceil(wish.height / rules.rise.max - SLACK));
  const most = Math.max(least, Math.floor(wish.height / rules.rise.min + SLACK));
  const counts = wish.risers !== null ? [wish.risers] : Array.from({ length: most - least + 1 }, (_, i) => least + i);
  let best: { sizes: StairSizes; unease: number } | null = null;
  for (const risers of counts) {
    const rise = wish.height / risers;
    const goings = Math.max(1, risers - wish.flights);
    const wanted = wish.going ?? easyGoing(rise, rules);
    // Where there is less length than is wanted, what there is, down to the least going.
    const fitting = wish.space === null || wish.going !== null ? wanted : Math.max(Math.min(wanted, wish.space / goings), Math.min(wanted, rules.going.min));
    const breaches = breachesOf(rise, fitting, wish, fitting * goings);
    const unease = Math.abs(2 * rise + fitting - STRIDE) + 0.8 * Math.abs(rise - EASY);
    const sizes = { risers, rise, going: fitting, pitch: Math.atan2(rise, fitting), breaches };
    if (!best || breaches.length < best.sizes.breaches.length || (breaches.length === best.sizes.breaches.length && unease < best.unease - NIL))
      best = { sizes, unease };
  }
  return best!.sizes;
}
