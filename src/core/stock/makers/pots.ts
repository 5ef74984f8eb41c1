import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { cuts, isFine } from '../../geometry/shapes';
import type { Vec3 } from '../../geometry/vec';
import { randomFrom } from '../forms/random';
import { rod, skin } from '../forms/skin';
import { turned, vessel } from '../forms/turned';
import { v3 } from '../types';

/** Pots that stand. */
export const POTS = ['clay', 'tapered', 'round', 'basket', 'square'] as const;

/** Those, and the one that hangs. */
export type Pot = (typeof POTS)[number] | 'hanging';

/** A pot of a form within a radius and a height: its body, and the level of the soil in it. */
export function potOf(form: Pot, r: number, high: number): { pot: Mesh; hanger: Mesh; soil: number; soilR: number } {
  const hanger = new MeshBuilder();
  let pot: Mesh;
  if (form === 'square') {
    const ring = (k: number, zz: number, inner = 0): Vec3[] => {
      const h = r * 0.9 * k - inner;
      const c = Math.min(0.012, h * 0.2);
      const n = cuts(4, 1);
      return [0, 1, 2, 3].flatMap((q) => {
        const [cx, cy] = [(q === 0 || q === 3 ? 1 : -1) * (h - c), (q < 2 ? 1 : -1) * (h - c)];
        return Array.from({ length: n + 1 }, (_, i) => v3(cx + c * Math.cos((Math.PI / 2) * (q + i / n)), cy + c * Math.sin((Math.PI / 2) * (q + i / n)), zz));
      });
    };
    const rings = [
      ring(0.72, 0, 0.003),
      ring(0.72, 0.003),
      ring(0.99, high - 0.004),
      ring(1, high - 0.001, 0.001),
      ring(1, high, 0.004),
      ring(1, high - 0.001, 0.007),
      ring(0.94, high * 0.72, 0.008),
    ];
    const n = rings[0].length;
    const points = rings.flat();
    const faces: number[][] = [];
    for (let k = 0; k + 1 < rings.length; k++)
      for (let i = 0; i < n; i++) faces.push([k * n + i, k * n + ((i + 1) % n), (k + 1) * n + ((i + 1) % n), (k + 1) * n + i]);
    pot = skin(points, faces, 0.9);
  } else {
    const outer: [number, number][] =
      form === 'clay'
        ? [
            [r * 0.68, 0],
            [r * 0.9, high * 0.78],
            [r * 1.0, high * 0.79],
            [r * 1.0, high],
          ]
        : form === 'tapered' || form === 'hanging'
          ? [
              [r * 0.62, 0],
              [r * 0.8, high * 0.4],
              [r, high],
            ]
          : form === 'round'
            ? [
                [r * 0.5, 0],
                [r * 0.82, high * 0.16],
                [r * 0.99, high * 0.45],
                [r * 0.96, high * 0.7],
                [r * 0.8, high * 0.95],
                [r * 0.79, high],
              ]
            : [
                [r * 0.8, 0],
                [r * 0.94, high * 0.3],
                [r * 1.0, high * 0.62],
                [r * 0.97, high],
              ];
    if (form === 'basket') {
      // Coils of rope, one on another.
      const coils = cuts(Math.max(6, Math.round(high / 0.016)), 5);
      const profile: [number, number][] = [];
      for (let k = 0; k < coils; k++) {
        const t = (k + 0.5) / coils;
        const rr = r * (0.8 + 0.2 * Math.sin(Math.min(1, t * 1.3) * (Math.PI / 2)));
        const h = high / coils / 2;
        for (const a of cuts(1, 0) ? [-0.9, -0.45, 0, 0.45, 0.9] : [0]) profile.push([rr - h * (1 - Math.cos(a)) * 1.2, high * t + h * Math.sin(a) * 1.05]);
      }
      pot = turned(
        [
          [0, 0, 0],
          [profile[0][0] - 0.004, 0],
          ...profile.map(([a, b]) => [a, b, 0] as const),
          [profile[profile.length - 1][0] - 0.012, high - 0.002],
          [r * 0.9, high * 0.7],
          [0, high * 0.66],
        ],
        { segments: 36 },
      );
    } else pot = turned(vessel(outer, Math.max(0.003, r * 0.06)), { segments: 36, round: 0.0025 });
    if (form === 'hanging') {
      for (let i = 0; i < 3; i++) {
        const a = (i / 3) * 2 * Math.PI;
        hanger.add(
          rod(
            [
              v3(Math.cos(a) * r * 0.99, Math.sin(a) * r * 0.99, high - 0.004),
              v3(Math.cos(a) * r * 0.5, Math.sin(a) * r * 0.5, high + r * 2.2),
              v3(0, 0, high + r * 3.6),
            ],
            0.0016,
            { section: 5 },
          ),
        );
      }
    }
  }
  const soilR = (form === 'round' ? 0.8 : form === 'square' ? 0.86 : 0.88) * r;
  return { pot, hanger: hanger.build(), soil: high * 0.86, soilR };
}

/** Soil that is heaped a little, and not even. */
export function soilIn(r: number, z0: number): Mesh {
  const random = randomFrom(3);
  const rings = cuts(4, 1);
  const n = cuts(20, 8);
  const points: Vec3[] = [v3(0, 0, z0 + 0.006)];
  const faces: number[][] = [];
  for (let k = 1; k <= rings; k++)
    for (let i = 0; i < n; i++) {
      const t = k / rings;
      const a = (2 * Math.PI * i) / n;
      points.push(v3(r * t * Math.cos(a), r * t * Math.sin(a), z0 + 0.006 * (1 - t * t) + (k < rings && isFine() ? 0.004 * (random() - 0.5) : 0)));
    }
  for (let i = 0; i < n; i++) faces.push([0, 1 + i, 1 + ((i + 1) % n)]);
  for (let k = 1; k < rings; k++)
    for (let i = 0; i < n; i++) faces.push([1 + (k - 1) * n + i, 1 + k * n + i, 1 + k * n + ((i + 1) % n), 1 + (k - 1) * n + ((i + 1) % n)]);
  return skin(points, faces, 1.2);
}
