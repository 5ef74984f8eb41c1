/** Degrees to radians. */
export const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** Radians to degrees. */
export const degrees = (radians: number): number => (radians * 180) / Math.PI;

/** The same direction in [0, 2π). */
export function turn(angle: number): number {
  const full = 2 * Math.PI;
  const rest = angle % full;
  return rest < 0 ? rest + full : rest;
}
