import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { cuts, isFine, isLight } from '../../geometry/shapes';
import { add3, scale3, type Vec3 } from '../../geometry/vec';
import { blade, GOLDEN, stalked, type Leaf, type LeafOutline } from '../forms/leaves';
import { randomFrom } from '../forms/random';
import { curve, rod } from '../forms/skin';
import { v3 } from '../types';

/** How a plant grows: what is the same for all of its kind. Lengths are shares of its height or its spread. */
export interface Species {
  /** Canes from the soil, one trunk with a crown, a rosette, a tuft, fronds that arch, vines that hang, twigs. */
  habit: 'canes' | 'tree' | 'rosette' | 'fan' | 'fronds' | 'trailing' | 'bush' | 'column';
  leaf: LeafOutline;
  /** Length of a blade as a share of the smaller of spread and height, and its width as a share of that. */
  long: number;
  wide: number;
  /** How many blades. */
  count: number;
  /** Angle from one to the next about the stem: spiral, two rows, or pairs that cross. */
  arranged: 'spiral' | 'rows' | 'pairs';
  droop: number;
  fold: number;
  /** Stalk as a share of the blade. */
  stalk: number;
  waves?: number;
  slits?: number;
  leaves: string;
  stems: string;
}

/** A dozen plants for rooms, and herbs for a sill; named by their leaves. */
export const SPECIES = {
  'rubber plant': {
    habit: 'canes',
    leaf: 'lance',
    long: 0.34,
    wide: 0.45,
    count: 60,
    arranged: 'spiral',
    droop: 0.5,
    fold: 0.2,
    stalk: 0.25,
    leaves: 'leaf.green',
    stems: 'timber.walnut',
  },
  'fiddle-leaf fig': {
    habit: 'tree',
    leaf: 'spoon',
    long: 0.4,
    wide: 0.66,
    count: 34,
    arranged: 'spiral',
    droop: 0.35,
    fold: 0.18,
    stalk: 0.14,
    waves: 3,
    leaves: 'leaf.green',
    stems: 'timber.walnut',
  },
  'weeping fig': {
    habit: 'tree',
    leaf: 'lance',
    long: 0.125,
    wide: 0.42,
    count: 320,
    arranged: 'rows',
    droop: 0.5,
    fold: 0.35,
    stalk: 0.2,
    leaves: 'leaf.green',
    stems: 'timber.ash',
  },
  'split-leaf': {
    habit: 'rosette',
    leaf: 'heart',
    long: 0.46,
    wide: 0.9,
    count: 13,
    arranged: 'spiral',
    droop: 0.5,
    fold: 0.15,
    stalk: 1.25,
    slits: 5,
    leaves: 'leaf.green',
    stems: 'leaf.green',
  },
  'sword plant': {
    habit: 'fan',
    leaf: 'strap',
    long: 0.95,
    wide: 0.075,
    count: 15,
    arranged: 'spiral',
    droop: 0.06,
    fold: 0.5,
    stalk: 0,
    waves: 0,
    leaves: 'leaf.green',
    stems: 'leaf.green',
  },
  'parlour palm': {
    habit: 'fronds',
    leaf: 'strap',
    long: 0.95,
    wide: 0.09,
    count: 11,
    arranged: 'spiral',
    droop: 0.9,
    fold: 0.3,
    stalk: 0.4,
    leaves: 'leaf.green',
    stems: 'leaf.green',
  },
  fern: {
    habit: 'fronds',
    leaf: 'lance',
    long: 0.9,
    wide: 0.3,
    count: 26,
    arranged: 'spiral',
    droop: 1.5,
    fold: 0.1,
    stalk: 0.15,
    leaves: 'leaf.green',
    stems: 'leaf.green',
  },
  'peace lily': {
    habit: 'rosette',
    leaf: 'lance',
    long: 0.4,
    wide: 0.34,
    count: 30,
    arranged: 'spiral',
    droop: 0.9,
    fold: 0.3,
    stalk: 0.8,
    waves: 2,
    leaves: 'leaf.green',
    stems: 'leaf.green',
  },
  'dragon tree': {
    habit: 'column',
    leaf: 'strap',
    long: 0.42,
    wide: 0.07,
    count: 78,
    arranged: 'spiral',
    droop: 1.1,
    fold: 0.3,
    stalk: 0,
    leaves: 'leaf.green',
    stems: 'timber.ash',
  },
  ivy: {
    habit: 'trailing',
    leaf: 'heart',
    long: 0.16,
    wide: 0.95,
    count: 130,
    arranged: 'rows',
    droop: 0.5,
    fold: 0.2,
    stalk: 0.7,
    leaves: 'leaf.green',
    stems: 'leaf.green',
  },
  'string of hearts': {
    habit: 'trailing',
    leaf: 'round',
    long: 0.1,
    wide: 0.9,
    count: 170,
    arranged: 'pairs',
    droop: 0.2,
    fold: 0.15,
    stalk: 0.25,
    leaves: 'leaf.green',
    stems: 'leaf.green',
  },
  aloe: {
    habit: 'fan',
    leaf: 'strap',
    long: 0.8,
    wide: 0.13,
    count: 20,
    arranged: 'spiral',
    droop: -0.35,
    fold: 0.75,
    stalk: 0,
    leaves: 'leaf.green',
    stems: 'leaf.green',
  },
  'olive tree': {
    habit: 'tree',
    leaf: 'lance',
    long: 0.115,
    wide: 0.24,
    count: 380,
    arranged: 'pairs',
    droop: 0.1,
    fold: 0.25,
    stalk: 0.12,
    leaves: 'leaf.green',
    stems: 'timber.bog-oak',
  },
  basil: {
    habit: 'bush',
    leaf: 'lance',
    long: 0.24,
    wide: 0.6,
    count: 64,
    arranged: 'pairs',
    droop: 0.8,
    fold: 0.3,
    stalk: 0.25,
    waves: 1,
    leaves: 'leaf.green',
    stems: 'leaf.green',
  },
  rosemary: {
    habit: 'bush',
    leaf: 'needle',
    long: 0.12,
    wide: 0.11,
    count: 230,
    arranged: 'pairs',
    droop: 0.1,
    fold: 0.3,
    stalk: 0,
    leaves: 'leaf.green',
    stems: 'timber.ash',
  },
  chives: {
    habit: 'fan',
    leaf: 'needle',
    long: 0.95,
    wide: 0.02,
    count: 60,
    arranged: 'spiral',
    droop: 0.35,
    fold: 0.9,
    stalk: 0,
    leaves: 'leaf.green',
    stems: 'leaf.green',
  },
} satisfies Record<string, Species>;

export interface Grown {
  leaves: MeshBuilder;
  stems: MeshBuilder;
}

/** Angle of the next leaf about its stem. */
const turnOf = (arranged: Species['arranged'], k: number): number =>
  arranged === 'spiral' ? k * GOLDEN : arranged === 'rows' ? (k % 2) * Math.PI + 0.15 * Math.sin(k) : Math.floor(k / 2) * (Math.PI / 2) + (k % 2) * Math.PI;

/** A point of a path at a share of its length, by its corners. */
function along(path: readonly Vec3[], t: number): Vec3 {
  const k = Math.max(0, Math.min(path.length - 1.0001, t * (path.length - 1)));
  const i = Math.floor(k);
  return add3(scale3(path[i], 1 - (k - i)), scale3(path[i + 1], k - i));
}

/** Grows a plant from the soil within a spread and a height. */
export function grow({ leaves, stems }: Grown, s: Species, reach: number, soil: number, top: number): void {
  const random = randomFrom(Math.round(s.long * 1000) + s.count);
  const tall = top - soil;
  const size = Math.min(2 * reach, tall);
  const long = s.long * size;
  const leaf = (k: number, share = 1): Leaf => {
    const l = long * share * (0.82 + 0.3 * random());
    return {
      length: l,
      width: l * s.wide,
      outline: s.leaf,
      fold: s.fold,
      droop: s.droop * (0.75 + 0.5 * random()),
      waves: s.waves,
      slits: s.slits,
      plain: s.count > 100,
      wave: 0.05 + 0.02 * (k % 3),
    };
  };
  const steps = cuts(isFine() ? 8 : 4, 2);
  const kept = Math.max(2, Math.round(s.count * cuts(1, s.count > 100 ? 0.36 : 1)));
  const lift = isLight() && s.count > 100 ? 1.45 : 1;
  if (s.habit === 'canes') {
    const canes = 4;
    for (let c = 0; c < canes; c++) {
      const a = (c / canes) * 2 * Math.PI + 0.7;
      const lean = reach * 0.34 * (0.5 + random());
      const high = tall * (0.68 + 0.24 * random()) - long * 0.18;
      const path = curve(
        [
          v3(Math.cos(a) * 0.015, Math.sin(a) * 0.015, soil - 0.01),
          v3(Math.cos(a) * lean * 0.35, Math.sin(a) * lean * 0.35, soil + high * 0.5),
          v3(Math.cos(a) * lean, Math.sin(a) * lean, soil + high),
        ],
        steps,
      );
      stems.add(rod(path, (t) => 0.0085 * (1 - 0.55 * t), { section: 8 }));
      const n = Math.round(kept / canes);
      for (let k = 0; k < n; k++) {
        const t = 0.14 + 0.86 * (k / (n - 1));
        // Upper leaves stand up, lower ones hang.
        stalked(leaves, stems, along(path, t), turnOf(s.arranged, k) + c, 0.15 + 0.75 * t, long * s.stalk, leaf(k, 1 - 0.3 * t ** 3));
      }
    }
  } else if (s.habit === 'tree') {
    const fork = soil + tall * 0.46;
    const trunk = curve([v3(0, 0, soil - 0.01), v3(reach * 0.04, reach * 0.03, soil + tall * 0.22), v3(-reach * 0.02, 0, fork)], steps);
    stems.add(rod(trunk, (t) => Math.max(0.006, tall * 0.013) * (1 - 0.3 * t), { section: 10 }));
    const boughs = s.count > 100 ? 9 : 4;
    const per = Math.round(kept / boughs);
    for (let b = 0; b < boughs; b++) {
      const a = b * GOLDEN + 0.4;
      const up = b / boughs;
      const out = reach * (0.78 - 0.35 * up) - long * 0.35;
      const from = along(trunk, 0.72 + 0.28 * up);
      const tip = v3(Math.cos(a) * out, Math.sin(a) * out, soil + tall * (0.66 + 0.3 * up) - long * 0.3);
      const path = curve([from, v3((from.x + tip.x) / 2, (from.y + tip.y) / 2, from.z + (tip.z - from.z) * 0.7), tip], steps);
      stems.add(rod(path, (t) => Math.max(0.0035, tall * 0.006) * (1 - 0.6 * t), { section: 6 }));
      for (let k = 0; k < per; k++) {
        const t = 0.2 + 0.8 * (k / Math.max(1, per - 1));
        const q = along(path, t);
        // Fine-leaved trees carry their leaves on twigs.
        if (s.count > 100) {
          const ta = turnOf('spiral', k) + b;
          const l = reach * 0.3 * (0.5 + 0.6 * random());
          const end = v3(q.x + Math.cos(ta) * l, q.y + Math.sin(ta) * l, Math.min(top - long, q.z + l * (0.35 - 0.55 * random() - 0.3 * s.droop)));
          if (k % 3 === 0) stems.add(rod([q, end], (u) => 0.0022 * (1 - 0.5 * u), { section: 4 }));
          const r = random();
          stalked(
            leaves,
            stems,
            add3(scale3(q, 1 - r), scale3(end, r)),
            turnOf(s.arranged, k) + ta,
            0.3 - 0.8 * s.droop * random(),
            long * s.stalk * 0.4,
            leaf(k, lift),
          );
        } else stalked(leaves, stems, q, turnOf(s.arranged, k) + b, 0.2 + 0.5 * t, long * s.stalk, leaf(k));
      }
    }
  } else if (s.habit === 'rosette') {
    for (let k = 0; k < kept; k++) {
      const t = (k + 0.5) / kept;
      const a = turnOf('spiral', k);
      // The oldest lean out the farthest.
      const rise = 1.45 - 0.75 * (1 - t);
      const stalk = Math.min(long * s.stalk * (0.75 + 0.4 * t), tall * 0.72);
      const base = v3(Math.cos(a) * 0.012, Math.sin(a) * 0.012, soil - 0.004);
      const out = (reach - long * 0.55) * (0.35 + 0.6 * (1 - t));
      const end = v3(Math.cos(a) * out, Math.sin(a) * out, Math.min(top - long * 0.3, soil + stalk * Math.sin(rise)));
      const path = curve([base, v3(Math.cos(a) * out * 0.35, Math.sin(a) * out * 0.35, soil + (end.z - soil) * 0.72), end], steps);
      stems.add(rod(path, (u) => 0.0042 * (1 - 0.45 * u), { section: 6 }));
      leaves.add(blade(end, { x: Math.cos(a) * 0.94, y: Math.sin(a) * 0.94, z: 0.34 }, leaf(k, 0.75 + 0.3 * (1 - t)), 0.3 * (random() - 0.5)));
    }
  } else if (s.habit === 'fan') {
    for (let k = 0; k < kept; k++) {
      const a = turnOf('spiral', k);
      const t = k / kept;
      const r = 0.02 * Math.sqrt(k) * (reach / 0.3) * 0.55;
      const lean = (s.droop < 0 ? 0.95 : 0.26) * (0.25 + 0.75 * t) * Math.min(1.2, reach / (tall * 0.4));
      const own = leaf(k, 1 - 0.25 * t);
      const l = Math.min(own.length, (tall - 0.005) / Math.max(0.3, Math.cos(lean)));
      leaves.add(
        blade(
          v3(Math.cos(a) * r, Math.sin(a) * r, soil - 0.006),
          { x: Math.cos(a) * Math.sin(lean), y: Math.sin(a) * Math.sin(lean), z: Math.cos(lean) },
          { ...own, length: l, width: s.wide * long },
          0.4 * (random() - 0.5),
        ),
      );
    }
  } else if (s.habit === 'fronds') {
    const palm = s.leaf === 'strap';
    for (let k = 0; k < kept; k++) {
      const a = turnOf('spiral', k) + 0.3 * random();
      const l = long * (0.72 + 0.28 * random());
      const lean = palm ? 0.35 + 0.5 * ((k * 0.618) % 1) : 0.4 + 0.7 * ((k * 0.618) % 1);
      // An arching midrib, leaflets along both of its sides.
      const path: Vec3[] = [];
      let p = v3(Math.cos(a) * 0.01, Math.sin(a) * 0.01, soil - 0.004);
      let dir = lean;
      const m = cuts(isFine() ? 14 : 9, 5);
      for (let i = 0; i <= m; i++) {
        path.push(p);
        const step = l / m;
        p = v3(p.x + Math.cos(a) * Math.sin(dir) * step, p.y + Math.sin(a) * Math.sin(dir) * step, Math.max(soil * 0.3, p.z + Math.cos(dir) * step));
        dir += ((s.droop * (0.8 + 0.4 * random())) / m) * (0.5 + i / m);
      }
      const far = Math.max(...path.map((q) => Math.hypot(q.x, q.y)), 1e-6);
      const high = Math.max(...path.map((q) => q.z)) - soil;
      const kx = Math.min(1, (reach * 0.97) / far);
      const kz = Math.min(1, (tall * 0.98) / high);
      const own = path.map((q) => v3(q.x * kx, q.y * kx, soil + (q.z - soil) * kz));
      stems.add(rod(own, (t) => (palm ? 0.004 : 0.0018) * (1 - 0.7 * t), { section: 5 }));
      const pairs = cuts(isFine() ? (palm ? 13 : 16) : 10, palm ? 7 : 3);
      for (let i = 0; i < pairs; i++) {
        const t = s.stalk * 0.6 + (1 - s.stalk * 0.6) * ((i + 0.5) / pairs);
        const q = along(own, t);
        const r = along(own, Math.min(1, t + 0.03));
        const [dx, dy, dz] = [r.x - q.x, r.y - q.y, r.z - q.z];
        const dl = Math.hypot(dx, dy, dz) || 1;
        const shape = palm ? Math.sin(Math.PI * (0.12 + 0.85 * ((i + 0.5) / pairs))) : Math.min(1, (3 * (i + 1)) / pairs) * (1 - (i / pairs) ** 1.5);
        const ll = l * (palm ? 0.42 : 0.15) * (0.25 + 0.75 * shape);
        for (const side of [-1, 1]) {
          const out = { x: (-dy / dl) * side * 0.85 + (dx / dl) * 0.5, y: (dx / dl) * side * 0.85 + (dy / dl) * 0.5, z: (dz / dl) * 0.5 + 0.04 };
          leaves.add(
            blade(q, out, {
              length: ll,
              width: ll * (palm ? s.wide : s.wide) * (isLight() && !palm ? 2 : 1),
              outline: s.leaf,
              fold: s.fold,
              droop: palm ? 0.5 : 0.25,
            }),
          );
        }
      }
    }
  } else if (s.habit === 'column') {
    const trunks = [
      [0, 0, 1],
      [0.05, 0.03, 0.66],
      [-0.045, 0.04, 0.42],
    ];
    trunks.forEach(([x, y, share], c) => {
      const high = (tall - long * 0.45) * share;
      const path = curve([v3(x * 0.4, y * 0.4, soil - 0.01), v3(x, y, soil + high * 0.5), v3(x * 1.3, y * 1.3, soil + high)], steps);
      stems.add(rod(path, (t) => 0.017 * (1 - 0.25 * t), { section: 10 }));
      const n = Math.round(kept / trunks.length);
      for (let k = 0; k < n; k++) {
        const t = k / n;
        const a = turnOf('spiral', k) + c;
        const own = leaf(k, 0.75 + 0.25 * share);
        const l = Math.min(own.length, reach * 0.95 - Math.hypot(x, y) * 1.3);
        const q = along(path, 1 - 0.09 * (1 - t));
        leaves.add(
          blade(q, { x: Math.cos(a) * (1 - 0.75 * t), y: Math.sin(a) * (1 - 0.75 * t), z: 0.35 + 0.75 * t }, { ...own, length: l, width: l * s.wide }),
        );
      }
    });
  } else if (s.habit === 'trailing') {
    const vines = 13;
    const per = Math.round(kept / vines);
    for (let v = 0; v < vines; v++) {
      const a = v * GOLDEN;
      const out = Math.min(reach * 0.92 - long * 0.5, 0.1 + 0.05 * random());
      const down = soil * (0.25 + 0.72 * random());
      const up = Math.min(tall * 0.6, 0.05 + 0.03 * random());
      const path = curve(
        [
          v3(Math.cos(a) * 0.02, Math.sin(a) * 0.02, soil - 0.004),
          v3(Math.cos(a) * out * 0.55, Math.sin(a) * out * 0.55, soil + up),
          v3(Math.cos(a) * out, Math.sin(a) * out, soil - 0.02),
          v3(Math.cos(a + 0.25) * out * 1.05, Math.sin(a + 0.25) * out * 1.05, soil - down * 0.55),
          v3(Math.cos(a + 0.1) * out, Math.sin(a + 0.1) * out, soil - down),
        ],
        cuts(6, 2),
      );
      stems.add(rod(path, (t) => 0.0016 * (1 - 0.4 * t), { section: 5 }));
      for (let k = 0; k < per; k++) {
        const q = along(path, 0.08 + (0.92 * k) / per);
        const own = leaf(k, 0.8 + 0.4 * random());
        stalked(leaves, stems, q, turnOf(s.arranged, k) + a + Math.PI / 2, 0.5, own.length * s.stalk, own, 0.0009);
      }
    }
  } else {
    const shoots = s.leaf === 'needle' ? 12 : 9;
    const per = Math.round(kept / shoots);
    for (let b = 0; b < shoots; b++) {
      const a = b * GOLDEN;
      const out = (reach - long * 0.6) * Math.sqrt((b + 0.5) / shoots);
      const high = (tall - long * 0.5) * (1 - 0.3 * random());
      const path = curve(
        [
          v3(Math.cos(a) * out * 0.25, Math.sin(a) * out * 0.25, soil - 0.004),
          v3(Math.cos(a) * out * 0.7, Math.sin(a) * out * 0.7, soil + high * 0.55),
          v3(Math.cos(a) * out, Math.sin(a) * out, soil + high),
        ],
        steps,
      );
      stems.add(rod(path, (t) => 0.0022 * (1 - 0.5 * t), { section: 5 }));
      for (let k = 0; k < per; k++) {
        const t = 0.15 + 0.85 * (k / Math.max(1, per - 1));
        const own = leaf(k, s.leaf === 'needle' ? lift : 0.55 + 0.5 * Math.sin(Math.PI * (0.25 + 0.6 * t)));
        stalked(leaves, stems, along(path, t), turnOf(s.arranged, k) + a, s.leaf === 'needle' ? 0.75 : 0.45, own.length * s.stalk, own, 0.0012);
      }
    }
  }
}

/** A plant drawn out to the spread and the height it is said to have, by no more than it can bear. */
export function filling(meshes: readonly [Mesh, Mesh], reach: number, soil: number, top: number | null): readonly [Mesh, Mesh] {
  let [far, high] = [1e-6, 1e-6];
  for (const { positions: p } of meshes)
    for (let k = 0; k < p.length; k += 3) {
      far = Math.max(far, Math.abs(p[k]), Math.abs(p[k + 1]));
      high = Math.max(high, p[k + 2] - soil);
    }
  const across = Math.min(1.5, Math.max(0.6, (reach * 0.995) / far));
  const up = top === null ? 1 : Math.min(1.9, Math.max(0.6, (top - soil) / high));
  for (const { positions: p } of meshes)
    for (let k = 0; k < p.length; k += 3) {
      // Its foot stays where it grows out of the soil.
      const t = Math.min(1, Math.abs(p[k + 2] - soil) / (0.25 * reach));
      const own = 1 + (across - 1) * t;
      p[k] *= own;
      p[k + 1] *= own;
      if (p[k + 2] > soil) p[k + 2] = soil + (p[k + 2] - soil) * up;
    }
  return meshes;
}
