/** Writes one ray into a list of them: origin, nearest, direction, farthest. */
export function setRay(
  rays: Float32Array,
  i: number,
  ox: number,
  oy: number,
  oz: number,
  tmin: number,
  dx: number,
  dy: number,
  dz: number,
  tmax: number,
): void {
  const k = i * 8;
  rays[k] = ox;
  rays[k + 1] = oy;
  rays[k + 2] = oz;
  rays[k + 3] = tmin;
  rays[k + 4] = dx;
  rays[k + 5] = dy;
  rays[k + 6] = dz;
  rays[k + 7] = tmax;
}
