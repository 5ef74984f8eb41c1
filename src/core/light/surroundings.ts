import { luminance, type Rgb } from '../finishes/colour';
import { dot3, type Vec3 } from '../geometry/vec';
import type { Project, Site, Surroundings } from '../project/schema';
import { daylight, sunPosition, type Daylight } from './daylight';
import { lightPixels, radianceOf, type LightPixels } from './rgbe';

type Beyond = Surroundings['picture'];

/** What a picture of the surroundings is known by: what lies under a key never changes. */
export const beyondKey = (picture: Beyond): string => (picture.kind === 'own' ? picture.image : picture.landscape);

/** Widest picture that is worked with, pixels. */
export const WIDEST = 4096;

const pictures = new Map<string, LightPixels>();

/** Brings the picture of a site's surroundings to hand. @param read decodes it */
export async function fetchSurroundings({ surroundings }: Site, read: (picture: Beyond) => Promise<LightPixels>): Promise<void> {
  if (!surroundings) return;
  const key = beyondKey(surroundings.picture);
  if (!pictures.has(key)) pictures.set(key, await read(surroundings.picture));
}

/** The surroundings of a site as they are seen and as they give light; null where it has none, or their picture is not at hand. */
export function sceneryOf(site: Site, light: Daylight = daylight(site)): Scenery | null {
  const pixels = site.surroundings && pictures.get(beyondKey(site.surroundings.picture));
  return pixels ? new Scenery(site.surroundings!, pixels, site.ground, light) : null;
}

/** Columns of the copy a picture's light is taken from: no finer than the table of the sky. */
const COARSE = 512;

/** What shines brighter than so many times the middle of the upper half is the sun or a lamp: the sun of date and hour stands for it. */
const GLARE = 16;

interface Coarse {
  width: number;
  height: number;
  radiance: Float32Array;
}

/** What was worked out of each picture last: dragging the time of day asks for it again and again. */
const worked = new WeakMap<LightPixels, { settings: Surroundings; coarse: Coarse; sum: number }>();

/** Mean reflectance of what cameras are set for: an outdoor picture’s mean luminance is that of a plane of it in all the light there is. */
const GREY = 0.18;

/**
 * A picture of what lies beyond a site, in photometric units. All round, its upper half gives the ground the illuminance the sky
 * has at the moment; flat, its mean is that of a grey plane in sun and sky. Direction and distance are true in the model’s axes.
 */
export class Scenery {
  /** Directions of a picture all round: to its middle, to its left, to its top. Of a flat one: out to it, to its left, up. */
  readonly axes: readonly [Vec3, Vec3, Vec3];
  /** Middle of the lower edge of a flat one. */
  readonly foot: Vec3;
  readonly height: number;
  /** Luminance of a value of 1, cd/m². */
  readonly scale: number;
  private readonly coarse: Coarse;

  constructor(
    readonly settings: Surroundings,
    readonly pixels: LightPixels,
    ground: number,
    light: Pick<Daylight, 'sun' | 'sunIlluminance' | 'skyIlluminance'>,
  ) {
    const { lie, turn, at, distance, width } = settings;
    this.axes = axesOf(settings);
    this.foot = { x: at.x + Math.cos(turn) * distance, y: at.y + Math.sin(turn) * distance, z: ground + settings.foot };
    this.height = (width * pixels.height) / pixels.width;
    let known = worked.get(pixels);
    if (known?.settings !== settings) {
      const small = lightPixels(radianceOf(pixels), pixels.width, pixels.height, COARSE);
      this.coarse = { width: small.width, height: small.height, radiance: radianceOf(small) };
      known = { settings, coarse: this.coarse, sum: lie === 'round' ? this.withoutGlare() : this.mean() };
      worked.set(pixels, known);
    }
    this.coarse = known.coarse;
    const sky = luminance(light.skyIlluminance);
    const all = sky + luminance(light.sunIlluminance) * Math.max(0, light.sun.z);
    this.scale = (lie === 'round' ? sky : (all * GREY) / Math.PI) / known.sum;
  }

  private mean(): number {
    const { radiance } = this.coarse;
    let sum = 0;
    for (let i = 0; i < radiance.length; i += 3) sum += luminance([radiance[i], radiance[i + 1], radiance[i + 2]]);
    return Math.max(1e-9, sum / (radiance.length / 3));
  }

  /** Takes the glare out of what gives light; returns the illuminance of the ground from the upper half, of values as they stand in the picture. */
  private withoutGlare(): number {
    const { width, height, radiance } = this.coarse;
    const above: { i: number; l: number; weight: number }[] = [];
    const cell = ((2 * Math.PI) / width) * (Math.PI / height);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const d = this.towards((x + 0.5) / width, (y + 0.5) / height);
        if (d.z <= 0) continue;
        const i = (y * width + x) * 3;
        above.push({ i, l: luminance([radiance[i], radiance[i + 1], radiance[i + 2]]), weight: d.z * cell * Math.sin((Math.PI * (y + 0.5)) / height) });
      }
    const sorted = above.map(({ l }) => l).sort((a, b) => a - b);
    const most = Math.max(1e-9, GLARE * (sorted[sorted.length >> 1] ?? 0));
    let sum = 0;
    for (const { i, l, weight } of above) {
      const k = l > most ? most / l : 1;
      for (let c = 0; c < 3; c++) radiance[i + c] *= k;
      sum += l * k * weight;
    }
    return Math.max(1e-9, sum);
  }

  /** The direction a place of a picture all round is seen in; u to the right and v down, 0…1. */
  towards(u: number, v: number): Vec3 {
    const [f, l, t] = this.axes;
    const [around, up] = [(0.5 - u) * 2 * Math.PI, (0.5 - v) * Math.PI];
    const [a, b, c] = [Math.cos(up) * Math.cos(around), Math.cos(up) * Math.sin(around), Math.sin(up)];
    return { x: f.x * a + l.x * b + t.x * c, y: f.y * a + l.y * b + t.y * c, z: f.z * a + l.z * b + t.z * c };
  }

  /** Where in the picture one looks from a place in a direction (unit vector); null beside a flat one. */
  placeOf(from: Vec3, direction: Vec3): { u: number; v: number } | null {
    const [f, l, t] = this.axes;
    if (this.settings.lie === 'round')
      return {
        u: 0.5 - Math.atan2(dot3(direction, l), dot3(direction, f)) / (2 * Math.PI),
        v: 0.5 - Math.asin(Math.max(-1, Math.min(1, dot3(direction, t)))) / Math.PI,
      };
    const away = (this.foot.x - from.x) * f.x + (this.foot.y - from.y) * f.y;
    const s = away / dot3(direction, f);
    if (!(s > 0) || s === Infinity) return null;
    const p = { x: from.x + direction.x * s - this.foot.x, y: from.y + direction.y * s - this.foot.y, z: from.z + direction.z * s - this.foot.z };
    const place = { u: 0.5 - dot3(p, l) / this.settings.width, v: 1 - p.z / this.height };
    return place.u >= 0 && place.u <= 1 && place.v >= 0 && place.v <= 1 ? place : null;
  }

  /** Light that arrives from a direction, cd/m²: of a picture all round, without its glare. */
  light(direction: Vec3): Rgb {
    const { width, height, radiance } = this.coarse;
    const { u, v } = this.placeOf(this.foot, direction)!;
    const [x, y] = [Math.floor(u * width) % width, Math.min(height - 1, Math.floor(v * height))];
    const i = (y * width + x) * 3;
    return [radiance[i] * this.scale, radiance[i + 1] * this.scale, radiance[i + 2] * this.scale];
  }

  /** Where its brightest place stands in the plan, radians from the x axis: that of its sun where it has one. */
  brightest(): number {
    const { width, height, rgbe } = this.pixels;
    let [best, at] = [-1, 0];
    for (let i = 0; i < width * height; i++) {
      const k = 2 ** (rgbe[i * 4 + 3] - 136);
      const l = luminance([rgbe[i * 4] * k, rgbe[i * 4 + 1] * k, rgbe[i * 4 + 2] * k]);
      if (l > best) [best, at] = [l, i];
    }
    const d = this.towards(((at % width) + 0.5) / width, (Math.floor(at / width) + 0.5) / height);
    return Math.atan2(d.y, d.x);
  }
}

/** Height of an eye, metres: where the horizon of a flat picture lies at first. */
const EYE = 1.6;

/** A picture as wide as this times its height is one all round. */
const ROUND = { least: 1.9, most: 2.1 } as const;

/**
 * How a picture lies when it is chosen: as the one before lay, or else about the middle of the house; one all round with its sun
 * where the sun of the moment stands.
 *
 * @param pixels of the picture, as small as one likes
 */
export function chosenSurroundings({ site, corners }: Pick<Project, 'site' | 'corners'>, picture: Beyond, pixels: LightPixels): Surroundings {
  const ratio = pixels.width / pixels.height;
  const round = ratio >= ROUND.least && ratio <= ROUND.most;
  const before = site.surroundings;
  const points = Object.values(corners);
  const middle = (axis: 'x' | 'y'): number => (points.length ? (Math.min(...points.map((p) => p[axis])) + Math.max(...points.map((p) => p[axis]))) / 2 : 0);
  const width = before?.width ?? 40;
  const made: Surroundings = {
    turn: site.north + Math.PI,
    at: { x: middle('x'), y: middle('y') },
    lift: 0,
    tilt: 0,
    distance: 25,
    lights: true,
    reach: 40,
    ...before,
    picture,
    width,
    lie: round ? 'round' : 'flat',
    foot: Math.round((EYE - site.ground - width / ratio / 2) * 1000) / 1000,
  };
  return round ? sunInPlace(made, pixels, site) : made;
}

/** A picture all round, turned so that its sun stands where that of the moment does; as it is where that is below the horizon. */
export function sunInPlace(settings: Surroundings, pixels: LightPixels, site: Site): Surroundings {
  const { altitude, direction } = sunPosition(site);
  if (altitude <= 0) return settings;
  const own = new Scenery({ ...settings, turn: 0 }, pixels, site.ground, daylight(site)).brightest();
  const turn = Math.atan2(direction.y, direction.x) - own;
  return { ...settings, turn: Math.round(Math.atan2(Math.sin(turn), Math.cos(turn)) * 1e4) / 1e4 };
}

function axesOf({ lie, turn, lift, tilt }: Surroundings): [Vec3, Vec3, Vec3] {
  const flat = { x: Math.cos(turn), y: Math.sin(turn), z: 0 };
  const side = { x: -Math.sin(turn), y: Math.cos(turn), z: 0 };
  const top = { x: 0, y: 0, z: 1 };
  if (lie === 'flat') return [flat, side, top];
  const mix = (a: Vec3, p: number, b: Vec3, q: number): Vec3 => ({ x: a.x * p + b.x * q, y: a.y * p + b.y * q, z: a.z * p + b.z * q });
  const [c, s] = [Math.cos(lift), Math.sin(lift)];
  const [forward, up] = [mix(flat, c, top, s), mix(top, c, flat, -s)];
  const [k, r] = [Math.cos(tilt), Math.sin(tilt)];
  return [forward, mix(side, k, up, r), mix(up, k, side, -r)];
}

/** The daylight of a site whose sky may be that of a picture. */
export function litBy(light: Daylight, scenery: Scenery | null): Daylight {
  return scenery?.settings.lights && scenery.settings.lie === 'round' ? { ...light, sky: (d) => scenery.light(d) } : light;
}
