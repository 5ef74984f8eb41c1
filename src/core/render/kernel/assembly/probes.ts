// Single questions to surfaces, for proofs: they answer as paths are answered.
import { begin, pair, second } from './sampler';
import { materials } from './scene';
import { at, meet, scatter, towards, triangle, valueB, valueG, valueR, wx, wy, wz } from './surface';

/** Scattering times cosine from one direction of travel to another, at the middle of a triangle: three channels, then the density. */
export function scattering(id: i32, dx: f32, dy: f32, dz: f32, ox: f32, oy: f32, oz: f32, out: usize): void {
  const tri = triangle(id);
  const m = materials + (<usize>(load<i32>(tri, 12) & 0xffff) << 7);
  at(tri, -1, 0.25, 0.25, m, dx, dy, dz);
  meet(m, dx, dy, dz);
  const density = towards(m, ox, oy, oz);
  store<f32>(out, density > 0 ? valueR : 0);
  store<f32>(out, density > 0 ? valueG : 0, 4);
  store<f32>(out, density > 0 ? valueB : 0, 8);
  store<f32>(out, density, 12);
}

/** A pair of the numbers that a sample of a pixel is drawn from. */
export function drawn(pixel: u32, sample: u32, dimension: u32, out: usize): void {
  begin(pixel, sample);
  store<f32>(out, pair(dimension));
  store<f32>(out, second, 4);
}

/** Draws a direction to scatter to: the direction, then its density, then scattering times cosine. */
export function scattered(id: i32, dx: f32, dy: f32, dz: f32, seed: u32, sample: u32, out: usize): void {
  const tri = triangle(id);
  const m = materials + (<usize>(load<i32>(tri, 12) & 0xffff) << 7);
  at(tri, -1, 0.25, 0.25, m, dx, dy, dz);
  meet(m, dx, dy, dz);
  begin(seed, sample);
  const density = scatter(m, 3);
  store<f32>(out, wx);
  store<f32>(out, wy, 4);
  store<f32>(out, wz, 8);
  store<f32>(out, density, 12);
  store<f32>(out, density > 0 ? valueR : 0, 16);
  store<f32>(out, density > 0 ? valueG : 0, 20);
  store<f32>(out, density > 0 ? valueB : 0, 24);
}
