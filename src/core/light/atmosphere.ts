import { luminance, type Rgb } from '../finishes/colour';
import type { Vec3 } from '../geometry/vec';

/**
 * Light scattered in the air above a round earth, worked out from physical constants alone: molecules, haze and ozone,
 * in eleven bands of the visible spectrum. The first scattering is integrated along the line of sight; all further ones
 * are a geometric series whose first member is integrated over all directions and whose rest is taken as even in all
 * directions (Hillaire, "A scalable and production ready sky and atmosphere rendering technique", 2020).
 */

/** Middles of the bands, nanometres. */
export const BANDS = [400, 430, 460, 490, 520, 550, 580, 610, 640, 670, 700] as const;
const N = BANDS.length;

const EARTH = 6_371_000;
/** Where the air ends for this purpose, metres above the ground. */
const TOP = 80_000;
/** Heights over which molecules and haze thin out by e, metres. */
const SCALE = { air: 8_000, haze: 1_200 };
/** Ozone lies as a tent about 25 km, its column 0.3 cm at standard pressure (300 Dobson units). */
const OZONE = { middle: 25_000, half: 15_000, column: 0.3 };
/** Haze scatters so much of what it takes, and so far forward (Henyey and Greenstein 1941): air of the countryside. */
const HAZE = { albedo: 0.93, forward: 0.72 };
const GOLDEN_ANGLE = Math.PI * (3 - Math.sqrt(5));
/** Part of its light the ground gives back. */
const GROUND = 0.2;
/** Effective temperature of the sun, K (IAU 2015, resolution B3). */
const SUN_KELVIN = 5772;

/** Optical depth of the molecules of a whole vertical column (Hansen and Travis 1974). @param nm wavelength */
export function rayleighDepth(nm: number): number {
  const l = nm / 1000;
  return 0.008569 * l ** -4 * (1 + 0.0113 * l ** -2 + 0.00013 * l ** -4);
}

/** Absorption of ozone by wavelength, nanometres and per centimetre at standard pressure (Bird and Riordan 1986). */
const CHAPPUIS: readonly (readonly [number, number])[] = [
  [440, 0],
  [450, 0.003],
  [460, 0.006],
  [470, 0.009],
  [480, 0.014],
  [490, 0.021],
  [500, 0.03],
  [510, 0.04],
  [520, 0.048],
  [530, 0.063],
  [540, 0.075],
  [550, 0.085],
  [570, 0.12],
  [593, 0.119],
  [610, 0.12],
  [630, 0.09],
  [656, 0.065],
  [668, 0.051],
  [690, 0.028],
  [710, 0.018],
];

/** Optical depth of the ozone of a whole vertical column. @param nm wavelength */
export function ozoneDepth(nm: number): number {
  const k = CHAPPUIS.findIndex(([l]) => l >= nm);
  if (k <= 0) return 0;
  const [[l0, a0], [l1, a1]] = [CHAPPUIS[k - 1], CHAPPUIS[k]];
  return OZONE.column * (a0 + ((a1 - a0) * (nm - l0)) / (l1 - l0));
}

/**
 * Optical depth of the whole air overhead for the eye, by its haze: the 0.21 of the clear sky of the Illuminating
 * Engineering Society (RP-21) at a haze of 3, and in proportion to it. At 1.8 next to nothing but air is left.
 */
export const luminousDepth = (haze: number): number => 0.07 * haze;

/** Optical depth of the haze itself: what air and ozone leave of the whole at 550 nm, by Ångström's law elsewhere. */
export function hazeDepth(haze: number, nm: number): number {
  const own = Math.max(0, luminousDepth(haze) - rayleighDepth(550) - ozoneDepth(550));
  return own * (nm / 550) ** -1.3;
}

/** Colour matching functions of the CIE 1931 observer, fitted by Wyman, Sloan and Shirley (2013). @param nm wavelength */
export function observer(nm: number): readonly [number, number, number] {
  const lobe = (mean: number, below: number, above: number): number => Math.exp(-0.5 * ((nm - mean) * (nm < mean ? below : above)) ** 2);
  return [
    1.056 * lobe(599.8, 0.0264, 0.0323) + 0.362 * lobe(442, 0.0624, 0.0374) - 0.065 * lobe(501.1, 0.049, 0.0382),
    0.821 * lobe(568.8, 0.0213, 0.0247) + 0.286 * lobe(530.9, 0.0613, 0.0322),
    1.217 * lobe(437, 0.0845, 0.0278) + 0.681 * lobe(459, 0.0385, 0.0725),
  ];
}

/** Light of the sun above the air in a band, relative: Planck's law. */
const planck = (nm: number): number => {
  const l = nm * 1e-9;
  return 1e-30 / l ** 5 / (Math.exp(0.014387769 / (l * SUN_KELVIN)) - 1);
};

/** What a band gives to X, Y and Z of sunlight above the air, Y in all being 1. */
const WEIGHTS = ((): Float64Array => {
  const w = new Float64Array(N * 3);
  BANDS.forEach((nm, i) => observer(nm).forEach((v, c) => (w[i * 3 + c] = v * planck(nm))));
  let y = 0;
  for (let i = 0; i < N; i++) y += w[i * 3 + 1];
  return w.map((v) => v / y);
})();

const AIR = Float64Array.from(BANDS, rayleighDepth);
const OZ = Float64Array.from(BANDS, ozoneDepth);

/** Linear sRGB of a spectrum given as parts of the sunlight above the air: luminance 1 is all of that. Components outside the gamut become 0, the luminance stays. */
function colourOf(parts: Float64Array): Rgb {
  let [x, y, z] = [0, 0, 0];
  for (let i = 0; i < N; i++) {
    const p = parts[i];
    x += p * WEIGHTS[i * 3];
    y += p * WEIGHTS[i * 3 + 1];
    z += p * WEIGHTS[i * 3 + 2];
  }
  const rgb: Rgb = [
    Math.max(0, 3.2404542 * x - 1.5371385 * y - 0.4985314 * z),
    Math.max(0, -0.969266 * x + 1.8760108 * y + 0.041556 * z),
    Math.max(0, 0.0556434 * x - 0.2040259 * y + 1.0572252 * z),
  ];
  const l = luminance(rgb);
  return l > 0 ? [(rgb[0] * y) / l, (rgb[1] * y) / l, (rgb[2] * y) / l] : [0, 0, 0];
}

/** Density of molecules, haze and ozone at a height, so that a whole vertical column is 1, per metre. */
const air = (h: number): number => Math.exp(-h / SCALE.air) / SCALE.air;
const haze = (h: number): number => Math.exp(-h / SCALE.haze) / SCALE.haze;
const ozone = (h: number): number => Math.max(0, 1 - Math.abs(h - OZONE.middle) / OZONE.half) / OZONE.half;

/** How far a line of sight runs until the air ends, metres. @param r distance from the earth's centre @param mu cosine from the vertical */
const toTop = (r: number, mu: number): number => -r * mu + Math.sqrt(Math.max(0, r * r * (mu * mu - 1) + (EARTH + TOP) ** 2));

/** How far it runs until it meets the ground, or −1. */
function toGround(r: number, mu: number): number {
  const under = r * r * (mu * mu - 1) + EARTH * EARTH;
  return mu < 0 && under >= 0 ? -r * mu - Math.sqrt(under) : -1;
}

/** Cosine from the vertical below which the earth is in the way. */
const horizon = (r: number): number => -Math.sqrt(Math.max(0, 1 - (EARTH / r) ** 2));

/** Ends of the pieces a line of sight is cut into: they grow with the square, the air is dense near by. */
const cut = (length: number, piece: number, pieces: number): [number, number] => [(piece / pieces) ** 2 * length, ((piece + 1) / pieces) ** 2 * length];

/**
 * Columns of molecules, haze and ozone along a line to the end of the air, in whole vertical columns: the air masses of
 * each. Null where the earth is in the way.
 *
 * @param h height above the ground, metres
 * @param mu cosine from the vertical
 */
export function airMasses(h: number, mu: number, steps = 200): [number, number, number] | null {
  const r = EARTH + h;
  if (mu < horizon(r) - 1e-9) return null;
  const length = toTop(r, mu);
  const sum: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < steps; i++) {
    const [t0, t1] = cut(length, i, steps);
    const t = (t0 + t1) / 2;
    const z = Math.max(0, Math.sqrt(r * r + t * t + 2 * r * mu * t) - EARTH);
    sum[0] += air(z) * (t1 - t0);
    sum[1] += haze(z) * (t1 - t0);
    sum[2] += ozone(z) * (t1 - t0);
  }
  return sum;
}

/** Air masses in a table: 32 heights, close together near the ground, by 64 directions, close together at the horizon. */
const [HEIGHTS, DIRECTIONS] = [32, 64];
let masses: Float64Array | null = null;

function massTable(): Float64Array {
  if (masses) return masses;
  masses = new Float64Array(HEIGHTS * DIRECTIONS * 3);
  for (let i = 0; i < HEIGHTS; i++) {
    const h = (i / (HEIGHTS - 1)) ** 2 * TOP;
    const low = horizon(EARTH + h);
    for (let j = 0; j < DIRECTIONS; j++) {
      const mu = low + (1 - low) * (j / (DIRECTIONS - 1)) ** 2;
      masses.set(airMasses(h, mu, 60) ?? [0, 0, 0], (i * DIRECTIONS + j) * 3);
    }
  }
  return masses;
}

/** Air masses from the table into `out`; false where the earth is in the way. */
function lookUpMasses(h: number, mu: number, out: Float64Array): boolean {
  const low = horizon(EARTH + h);
  if (mu < low) return false;
  const table = massTable();
  const y = Math.min(HEIGHTS - 1.000001, Math.sqrt(Math.max(0, h) / TOP) * (HEIGHTS - 1));
  const x = Math.min(DIRECTIONS - 1.000001, Math.sqrt((mu - low) / (1 - low)) * (DIRECTIONS - 1));
  const [i, j] = [Math.floor(y), Math.floor(x)];
  const [v, u] = [y - i, x - j];
  const at = (i * DIRECTIONS + j) * 3;
  for (let c = 0; c < 3; c++)
    out[c] =
      (table[at + c] * (1 - u) + table[at + 3 + c] * u) * (1 - v) + (table[at + DIRECTIONS * 3 + c] * (1 - u) + table[at + DIRECTIONS * 3 + 3 + c] * u) * v;
  return true;
}

/** Part of the sunlight left in each band after so many air masses. */
function leftOver(mass: ArrayLike<number>, fog: Float64Array, out: Float64Array): void {
  for (let b = 0; b < N; b++) out[b] = Math.exp(-AIR[b] * mass[0] - fog[b] * mass[1] - OZ[b] * mass[2]);
}

const phaseAir = (cos: number): number => (3 / (16 * Math.PI)) * (1 + cos * cos);
const phaseHaze = (cos: number): number => {
  const g = HAZE.forward;
  return (1 - g * g) / (4 * Math.PI * (1 + g * g - 2 * g * cos) ** 1.5);
};

/** Sunlight that has come through the air: linear sRGB as a part of that above the air. @param up cosine of the sun's distance from the zenith, not below 0 */
export function sunThrough(fogginess: number, up: number): Rgb {
  const mass = airMasses(0, Math.max(0, up))!;
  const out = new Float64Array(N);
  leftOver(
    mass,
    Float64Array.from(BANDS, (nm) => hazeDepth(fogginess, nm)),
    out,
  );
  return colourOf(out);
}

/** Heights and suns for which light scattered more than once is kept; the lowest sun stands 20° below the horizon. */
const [ROWS, COLUMNS, LOWEST_SUN, HIGHEST] = [12, 24, -0.35, TOP * 0.7];

/** The air with so much haze in it: what it scatters, worked out when it is first asked for. */
export class Atmosphere {
  private readonly fog: Float64Array;
  private again: Float64Array | null = null;

  /** @param haze as the site has it, 1.8 to 10 */
  constructor(haze: number) {
    this.fog = Float64Array.from(BANDS, (nm) => hazeDepth(haze, nm));
  }

  private readonly mass = new Float64Array(3);
  /** Of the piece of a line of sight looked at last: the sunlight there, what of light 1 it scatters towards the eye, and what is left of it behind all pieces so far. */
  private readonly sunlight = new Float64Array(N);
  private readonly scattered = new Float64Array(N);
  private readonly through = new Float64Array(N);

  /**
   * Looks at a piece of a line of sight.
   *
   * @param r where the line sets out, metres from the earth's centre
   * @param z cosine of the line from the vertical
   * @param mu cosine of the sun from the vertical @param nu cosine between both
   * @returns height of the piece's middle, metres
   */
  private look(r: number, z: number, [t0, t1]: readonly [number, number], mu: number, nu: number): number {
    const { mass, sunlight, scattered, through, fog } = this;
    const t = (t0 + t1) / 2;
    const rt = Math.sqrt(r * r + t * t + 2 * r * z * t);
    const h = Math.max(0, rt - EARTH);
    const [a, f, o] = [air(h), haze(h), ozone(h)];
    if (lookUpMasses(h, (r * mu + t * nu) / rt, mass)) leftOver(mass, fog, sunlight);
    else sunlight.fill(0);
    for (let b = 0; b < N; b++) {
      const scatter = a * AIR[b] + f * fog[b] * HAZE.albedo;
      const take = a * AIR[b] + f * fog[b] + o * OZ[b];
      const left = Math.exp(-take * (t1 - t0));
      scattered[b] = take > 0 ? ((through[b] * scatter) / take) * (1 - left) : 0;
      through[b] *= left;
    }
    return h;
  }

  /** Light scattered twice or oftener that arrives at a place, the same from all sides: by height and by the sun there. */
  private more(): Float64Array {
    if (this.again) return this.again;
    const out = new Float64Array(ROWS * COLUMNS * N);
    const [around, steps] = [32, 12];
    const [second, share, cell] = [new Float64Array(N), new Float64Array(N), new Float64Array(N)];
    for (let i = 0; i < ROWS; i++)
      for (let j = 0; j < COLUMNS; j++) {
        const r = EARTH + Math.max(1, (i / (ROWS - 1)) ** 2 * HIGHEST);
        const mu = LOWEST_SUN + ((1 - LOWEST_SUN) * j) / (COLUMNS - 1);
        const side = Math.sqrt(1 - mu * mu);
        second.fill(0);
        share.fill(0);
        for (let k = 0; k < around; k++) {
          // Directions spread evenly over the sphere along a spiral.
          const z = 1 - (2 * k + 1) / around;
          const nu = z * mu + Math.sqrt(1 - z * z) * Math.cos(k * GOLDEN_ANGLE) * side;
          const ground = toGround(r, z);
          const length = ground >= 0 ? ground : toTop(r, z);
          this.through.fill(1);
          for (let s = 0; s < steps; s++) {
            this.look(r, z, cut(length, s, steps), mu, nu);
            for (let b = 0; b < N; b++) {
              share[b] += this.scattered[b] / around;
              second[b] += (this.scattered[b] * this.sunlight[b]) / (4 * Math.PI) / around;
            }
          }
          if (ground < 0) continue;
          const up = (r * mu + ground * nu) / EARTH;
          if (up <= 0 || !lookUpMasses(0, up, this.mass)) continue;
          leftOver(this.mass, this.fog, cell);
          for (let b = 0; b < N; b++) second[b] += (this.through[b] * cell[b] * up * GROUND) / Math.PI / around;
        }
        for (let b = 0; b < N; b++) out[(i * COLUMNS + j) * N + b] = second[b] / (1 - share[b]);
      }
    this.again = out;
    return out;
  }

  /**
   * Light of the sky seen from the ground.
   *
   * @param up cosine of the direction's angle from the zenith, 0 to 1
   * @param sunUp cosine of the sun's angle from the zenith, down to −0.35
   * @param towards cosine of the angle between both
   * @returns luminance for an illuminance of 1 above the air, per steradian, as linear sRGB
   */
  radiance(up: number, sunUp: number, towards: number, steps = 28): Rgb {
    const more = this.more();
    const r = EARTH + 1;
    const length = toTop(r, up);
    const sum = new Float64Array(N);
    const [pa, ph] = [phaseAir(towards), phaseHaze(towards)];
    this.through.fill(1);
    for (let s = 0; s < steps; s++) {
      const piece = cut(length, s, steps);
      const h = this.look(r, up, piece, sunUp, towards);
      const t = (piece[0] + piece[1]) / 2;
      const local = (r * sunUp + t * towards) / (EARTH + h);
      const y = Math.min(ROWS - 1.000001, Math.sqrt(h / HIGHEST) * (ROWS - 1));
      const x = Math.min(COLUMNS - 1.000001, (Math.max(0, local - LOWEST_SUN) / (1 - LOWEST_SUN)) * (COLUMNS - 1));
      const [i, j] = [Math.floor(y), Math.floor(x)];
      const [v, u] = [y - i, x - j];
      const [a, f] = [air(h), haze(h)];
      for (let b = 0; b < N; b++) {
        const [sa, sf] = [a * AIR[b], f * this.fog[b] * HAZE.albedo];
        const phase = sa + sf > 0 ? (sa * pa + sf * ph) / (sa + sf) : 0;
        const at = (i * COLUMNS + j) * N + b;
        const below = more[at] * (1 - u) + more[at + N] * u;
        const above = more[at + COLUMNS * N] * (1 - u) + more[at + COLUMNS * N + N] * u;
        sum[b] += this.scattered[b] * (phase * this.sunlight[b] + below * (1 - v) + above * v);
      }
    }
    return colourOf(sum);
  }
}

/** The sky above a place as it is scattered, in a table over half of the hemisphere: the other half mirrors it. */
export class ScatteredSky {
  private static readonly UP = 24;
  private static readonly AROUND = 19;
  private readonly table: Float64Array;

  constructor(
    air: Atmosphere,
    readonly sunUp: number,
  ) {
    const { UP, AROUND } = ScatteredSky;
    this.table = new Float64Array(UP * AROUND * 3);
    const side = Math.sqrt(Math.max(0, 1 - sunUp * sunUp));
    for (let i = 0; i < UP; i++)
      for (let j = 0; j < AROUND; j++) {
        // Rows close together at the horizon, where colours change fastest.
        const up = Math.sin((i / (UP - 1)) ** 1.5 * (Math.PI / 2));
        const towards = up * sunUp + Math.sqrt(1 - up * up) * side * Math.cos((j / (AROUND - 1)) * Math.PI);
        this.table.set(air.radiance(up, sunUp, towards), (i * AROUND + j) * 3);
      }
  }

  /** Light of the sky in a direction for 1 above the air, linear sRGB, into `out`. @param around angle from the sun's azimuth, 0 to π */
  at(up: number, around: number, out: number[]): void {
    const { UP, AROUND } = ScatteredSky;
    const y = Math.min(UP - 1.000001, (Math.asin(Math.min(1, Math.max(0, up))) / (Math.PI / 2)) ** (2 / 3) * (UP - 1));
    const x = Math.min(AROUND - 1.000001, (around / Math.PI) * (AROUND - 1));
    const [i, j] = [Math.floor(y), Math.floor(x)];
    const [v, u] = [y - i, x - j];
    const at = (i * AROUND + j) * 3;
    const next = at + AROUND * 3;
    for (let c = 0; c < 3; c++)
      out[c] = (this.table[at + c] * (1 - u) + this.table[at + 3 + c] * u) * (1 - v) + (this.table[next + c] * (1 - u) + this.table[next + 3 + c] * u) * v;
  }

  /** What the level ground receives of it, for 1 above the air. */
  ground(): Rgb {
    const out = [0, 0, 0];
    overSky(24, 24, ({ x, y, z }, weight) => {
      const l = [0, 0, 0];
      this.at(z, Math.abs(Math.atan2(y, x)), l);
      for (let c = 0; c < 3; c++) out[c] += l[c] * z * weight;
    });
    return [out[0], out[1], out[2]];
  }
}

/**
 * Directions over the upper hemisphere with the solid angle each stands for: midpoints in the azimuth, Gauss and
 * Legendre's two points in every band of the squared height, so that bands lie close at the horizon.
 */
export function overSky(bands: number, spokes: number, visit: (direction: Vec3, solidAngle: number) => void): void {
  const G = 1 / Math.sqrt(3);
  for (let i = 0; i < bands; i++)
    for (const g of [-G, G]) {
      const s = (i + 0.5 + g / 2) / bands;
      const z = s * s;
      const side = Math.sqrt(1 - z * z);
      const weight = ((2 * s) / bands / 2) * ((2 * Math.PI) / spokes);
      for (let j = 0; j < spokes; j++) {
        const a = ((j + 0.5) / spokes) * 2 * Math.PI;
        visit({ x: side * Math.cos(a), y: side * Math.sin(a), z }, weight);
      }
    }
}
