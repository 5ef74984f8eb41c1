// The picture of what lies beyond the site, as the eye sees it: all round, or upright at a distance.
//
// Beyond, 96 bytes: 0 pixels (three mantissas of one exponent), 4 width, 8 height, 12 whether it lies flat; 16, 32, 48 directions to
//   its middle, to its left, to its top; 64 middle of the lower edge of a flat one; 76, 80 one over its width and height in metres;
//   84 luminance of a value of 1.
import { beyond } from './scene';

/** What was looked up last. */
export let farR: f32 = 0;
export let farG: f32 = 0;
export let farB: f32 = 0;

const PI: f32 = 3.14159265;

// @ts-ignore: decorator
@inline
function along(p: usize, x: f32, y: f32, z: f32): f32 {
  return load<f32>(beyond + p) * x + load<f32>(beyond + p, 4) * y + load<f32>(beyond + p, 8) * z;
}

// @ts-ignore: decorator
@inline
function add(column: i32, row: i32, weight: f32): void {
  const p = <usize>load<i32>(beyond) + (<usize>(row * load<i32>(beyond, 4) + column) << 2);
  const e = <i32>load<u8>(p, 3);
  if (e < 10) return;
  const k = reinterpret<f32>((e - 9) << 23) * weight;
  farR += (<f32>load<u8>(p) + 0.5) * k;
  farG += (<f32>load<u8>(p, 1) + 0.5) * k;
  farB += (<f32>load<u8>(p, 2) + 0.5) * k;
}

/** What is seen from a place in a direction; returns whether the picture lies there. */
export function lookBeyond(x: f32, y: f32, z: f32, dx: f32, dy: f32, dz: f32): bool {
  const width = load<i32>(beyond, 4), height = load<i32>(beyond, 8);
  const flat = load<i32>(beyond, 12) != 0;
  let u: f32, v: f32;
  if (flat) {
    const away = (load<f32>(beyond, 64) - x) * load<f32>(beyond, 16) + (load<f32>(beyond, 68) - y) * load<f32>(beyond, 20);
    const t = away / along(16, dx, dy, dz);
    if (!(t > 0) || t == Infinity) return false;
    u = <f32>0.5 - along(32, x + dx * t - load<f32>(beyond, 64), y + dy * t - load<f32>(beyond, 68), 0) * load<f32>(beyond, 76);
    v = <f32>1 - (z + dz * t - load<f32>(beyond, 72)) * load<f32>(beyond, 80);
    if (!(u >= 0 && u <= 1 && v >= 0 && v <= 1)) return false;
  } else {
    u = <f32>0.5 - Mathf.atan2(along(32, dx, dy, dz), along(16, dx, dy, dz)) / (2 * PI);
    v = <f32>0.5 - Mathf.asin(max<f32>(-1, min<f32>(1, along(48, dx, dy, dz)))) / PI;
  }
  const fx = u * <f32>width - <f32>0.5, fy = max<f32>(0, min<f32>(<f32>height - <f32>1.001, v * <f32>height - <f32>0.5));
  const column = <i32>floor(fx), row = <i32>fy;
  const a = fx - <f32>column, b = fy - <f32>row;
  // One all round goes on at its other side.
  const first = flat ? max(0, min(width - 1, column)) : (column + width) % width;
  const next = flat ? min(width - 1, max(0, column + 1)) : (column + 1 + width) % width;
  const below = min(height - 1, row + 1);
  farR = 0;
  farG = 0;
  farB = 0;
  add(first, row, (1 - a) * (1 - b));
  add(next, row, a * (1 - b));
  add(first, below, (1 - a) * b);
  add(next, below, a * b);
  const k = load<f32>(beyond, 84);
  farR *= k;
  farG *= k;
  farB *= k;
  return true;
}
