import { describe, expect, it } from 'vitest';
import { IDENTITY, joinMeshes, MeshBuilder, type Mesh } from '../geometry/mesh';
import type { Vec3 } from '../geometry/vec';
import { LAMP_PART } from '../stock/makers/shades';
import { makeParts, STOCK } from '../stock/stock';
import { diffuse, SceneBuilder, type Scene } from './scene';
import { prepareScene } from './prepared';
import { Tracer } from './tracer';

const v = (x: number, y: number, z: number): Vec3 => ({ x, y, z });
const RHO = 0.5;
const FLUX = 1000;

/** A level quadrilateral round a point that looks up or down; the point lies on none of its triangles’ edges. */
function patch({ x, y, z }: Vec3, up: boolean, r = 0.05): Mesh {
  const ring = [v(x - r, y - r, z), v(x + 1.7 * r, y - r, z), v(x + 1.7 * r, y + r, z), v(x - r, y + r, z)];
  const [a, b, c, d] = up ? ring : ring.reverse();
  return new MeshBuilder().quad(a, b, c, d).build();
}

function triangles({ positions: p, indices }: Mesh): Vec3[][] {
  const at = (i: number): Vec3 => v(p[i * 3], p[i * 3 + 1], p[i * 3 + 2]);
  return Array.from({ length: indices.length / 3 }, (_, k) => [0, 1, 2].map((j) => at(indices[k * 3 + j])));
}

const minus = (a: Vec3, b: Vec3): Vec3 => v(a.x - b.x, a.y - b.y, a.z - b.z);
const times = (a: Vec3, b: Vec3): Vec3 => v(a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x);
const inner = (a: Vec3, b: Vec3): number => a.x * b.x + a.y * b.y + a.z * b.z;
const areaOf = (mesh: Mesh): number =>
  triangles(mesh).reduce((s, [a, b, c]) => s + Math.sqrt(inner(times(minus(b, a), minus(c, a)), times(minus(b, a), minus(c, a)))) / 2, 0);

/**
 * Illuminance a Lambertian polygon gives a point with a normal, by Lambert’s contour integral (Lambert 1760; Baum et al. 1989),
 * exact at every angle. The polygon must lie wholly over the horizon of the point. lx for cd/m².
 */
function lambert(polygon: readonly Vec3[], p: Vec3, n: Vec3, radiance: number): number {
  let sum = 0;
  polygon.forEach((a, i) => {
    const [u, w] = [minus(a, p), minus(polygon[(i + 1) % polygon.length], p)];
    const c = times(u, w);
    const l = Math.sqrt(inner(c, c));
    if (l > 0) sum += (Math.atan2(l, inner(u, w)) * inner(c, n)) / l;
  });
  return (radiance * Math.abs(sum)) / 2;
}

/** What the tracer shows on a patch of the albedo RHO, as illuminance, lx. */
function traced(scene: Scene, at: Vec3, up: boolean, n: number): { lux: number; error: number } {
  const s = up ? 1 : -1;
  // Across the lamp's direction, so that the eye stands nowhere in the way.
  const ray = { origin: v(at.x, at.y - 0.01, at.z + s * 0.01), direction: v(0, Math.SQRT1_2, -s * Math.SQRT1_2) };
  const sum = Tracer.along(prepareScene(scene), new Array<typeof ray>(n).fill(ray), { seed: 7, bounces: 1 });
  let [mean, square] = [0, 0];
  for (let i = 0; i < n; i++) mean += sum[i * 3 + 1] / n;
  for (let i = 0; i < n; i++) square += (sum[i * 3 + 1] - mean) ** 2 / (n - 1);
  return { lux: (mean * Math.PI) / RHO, error: Math.sqrt(square / n) / mean };
}

function lit(lamp: Mesh, ...rest: readonly Mesh[]): { scene: Scene; radiance: number } {
  const builder = new SceneBuilder();
  const radiance = FLUX / (Math.PI * areaOf(lamp));
  const glow = builder.material({ ...diffuse([0, 0, 0]), emission: [radiance, radiance, radiance], lamp: 0 });
  const { first, count } = builder.mesh(lamp, IDENTITY, glow);
  builder.light(first, count, [radiance, radiance, radiance], FLUX);
  const ground = builder.material(diffuse([RHO, RHO, RHO]));
  for (const mesh of rest) builder.mesh(mesh, IDENTITY, ground);
  return { scene: builder.build(null), radiance };
}

const DEGREES = [0, 15, 30, 45, 55, 60.3, 64, 70, 75, 80, 84, 87, 88, 89];

describe('light of luminaires', () => {
  it.each(DEGREES)('of a panel of 0.2 m at 2.4 m, seen at %s° from below, is Lambert’s', (degrees) => {
    const h = 2.4;
    const d = h * Math.tan((degrees * Math.PI) / 180);
    const ring = [v(-0.1, 0.1, h), v(0.1, 0.1, h), v(0.1, -0.1, h), v(-0.1, -0.1, h)];
    const at = v(d, 0, 0);
    const { scene, radiance } = lit(new MeshBuilder().quad(ring[0], ring[1], ring[2], ring[3]).build(), patch(at, true));
    const { lux, error } = traced(scene, at, true, 20000);
    const expected = lambert(ring, at, v(0, 0, 1), radiance);
    expect(error).toBeLessThan(0.002);
    expect(Math.abs(lux / expected - 1)).toBeLessThan(0.005);
  });

  const lamps = STOCK.filter((item) => item.lamp);

  it.each(lamps.map((item) => [item.name, item] as const))('of a %s, by itself, reaches every angle', (_, item) => {
    const lamp = joinMeshes(makeParts(item, item.size).flatMap((p) => (p.part === LAMP_PART ? [p.mesh] : [])));
    const all = triangles(lamp);
    const points = all.flat();
    const centre = v(
      points.reduce((s, p) => s + p.x, 0) / points.length,
      points.reduce((s, p) => s + p.y, 0) / points.length,
      points.reduce((s, p) => s + p.z, 0) / points.length,
    );
    for (const up of [true, false])
      for (const degrees of [20, 55, 64, 75, 85, 88]) {
        // Far enough for all of the lamp to lie over the horizon of the point.
        const [d, a] = [9, (degrees * Math.PI) / 180];
        const at = v(centre.x + d * Math.sin(a), centre.y, centre.z - (up ? 1 : -1) * d * Math.cos(a));
        const n = v(0, 0, up ? 1 : -1);
        const over = points.every((p) => inner(minus(p, at), n) > 0);
        if (!over) continue;
        const { scene, radiance } = lit(lamp, patch(at, up));
        const expected = all.reduce((sum, t) => {
          const normal = times(minus(t[1], t[0]), minus(t[2], t[0]));
          if (inner(normal, minus(at, t[0])) <= 0) return sum;
          return hidden(t, at, all) ? sum : sum + lambert(t, at, n, radiance);
        }, 0);
        if (expected < 1e-4) continue;
        const { lux, error } = traced(scene, at, up, 6000);
        expect([up, degrees, Math.abs(lux / expected - 1) < Math.max(0.03, 5 * error) || lux / expected]).toEqual([up, degrees, true]);
      }
  });

  it('that spills through a door into the next room is what one sees of the lamp from there', () => {
    // A panel of 0.6 m under a ceiling of 2.5 m, 2 m before a wall with a door of 0.9 × 2.1 m in it.
    const [h, half] = [2.45, 0.3];
    const ring = [v(-half, half, h), v(half, half, h), v(half, -half, h), v(-half, -half, h)];
    const wall = 2;
    const side = (y0: number, y1: number, z0: number, z1: number): Mesh => new MeshBuilder().box(wall, y0, z0, wall + 0.1, y1, z1).build();
    const walls = [side(-4, -0.45, 0, 2.5), side(0.45, 4, 0, 2.5), side(-0.45, 0.45, 2.1, 2.5)];
    for (const [x, y] of [
      [2.6, 0],
      [4, 0.2],
      [6, -0.3],
      [9, 0],
      [11.5, 0.1],
    ]) {
      const at = v(x, y, 0);
      const { scene, radiance } = lit(new MeshBuilder().quad(ring[0], ring[1], ring[2], ring[3]).build(), patch(at, true), ...walls);
      // By quadrature over the panel: a point of it counts where its ray passes the door on both faces of the wall.
      const N = 240;
      let expected = 0;
      for (let i = 0; i < N; i++)
        for (let j = 0; j < N; j++) {
          const q = v(-half + ((i + 0.5) / N) * 2 * half, -half + ((j + 0.5) / N) * 2 * half, h);
          const w = minus(q, at);
          const passes = [wall, wall + 0.1].every((plane) => {
            const t = (plane - at.x) / w.x;
            return Math.abs(at.y + w.y * t) < 0.45 && w.z * t < 2.1;
          });
          if (!passes) continue;
          const d2 = inner(w, w);
          expected += (radiance * (w.z / Math.sqrt(d2)) ** 2 * ((2 * half) / N) ** 2) / d2;
        }
      const { lux, error } = traced(scene, at, true, 40000);
      if (expected === 0) expect(lux).toBe(0);
      else expect([x, Math.abs(lux / expected - 1) < Math.max(0.012, 5 * error) || lux / expected]).toEqual([x, true]);
    }
  });
});

/** Whether the middle of a triangle is hidden from a point by another one. */
function hidden(t: readonly Vec3[], from: Vec3, all: readonly Vec3[][]): boolean {
  const m = v((t[0].x + t[1].x + t[2].x) / 3, (t[0].y + t[1].y + t[2].y) / 3, (t[0].z + t[1].z + t[2].z) / 3);
  const d = minus(m, from);
  return all.some((o) => {
    if (o === t) return false;
    const [e1, e2] = [minus(o[1], o[0]), minus(o[2], o[0])];
    const h = times(d, e2);
    const det = inner(e1, h);
    if (Math.abs(det) < 1e-14) return false;
    const s = minus(from, o[0]);
    const u = inner(s, h) / det;
    const q = times(s, e1);
    const w = inner(d, q) / det;
    const k = inner(e2, q) / det;
    return u > 1e-6 && w > 1e-6 && u + w < 1 - 1e-6 && k > 0 && k < 1 - 1e-5;
  });
}
