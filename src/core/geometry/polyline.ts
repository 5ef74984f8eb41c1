import { add, cross, distance, dot, left, lerp, scale, sub, unit, type Vec2 } from './vec';
import { DUST, NIL } from '../units/tolerance';

/** A polyline with the way along it. */
export class Polyline {
  /** Distance of every point along it. */
  readonly s: readonly number[];

  constructor(
    readonly points: readonly Vec2[],
    s?: readonly number[],
  ) {
    const own = [0];
    for (let i = 1; i < points.length; i++) own.push(own[i - 1] + distance(points[i - 1], points[i]));
    this.s = s ?? own;
  }

  /** Another line of as many points, on which places keep the distances of this one. */
  withPoints(points: readonly Vec2[]): Polyline {
    return new Polyline(points, this.s);
  }

  get length(): number {
    return this.s[this.s.length - 1];
  }

  at(s: number): Vec2 {
    let i = 0;
    while (i < this.points.length - 2 && s > this.s[i + 1]) i++;
    const l = this.s[i + 1] - this.s[i];
    return l < NIL ? this.points[i] : lerp(this.points[i], this.points[i + 1], (s - this.s[i]) / l);
  }

  /** Its points from one place to another, both included. */
  between(a: number, b: number): Vec2[] {
    return [this.at(a), ...this.points.filter((_, i) => this.s[i] > a + DUST && this.s[i] < b - DUST), this.at(b)];
  }

  /** Where a ray leaves it last, as a distance along it; −1 where it does not meet it. */
  hit(p: Vec2, d: Vec2): number {
    let best = -1;
    let reach = DUST;
    for (let i = 0; i < this.points.length - 1; i++) {
      const e = sub(this.points[i + 1], this.points[i]);
      const det = cross(d, e);
      if (Math.abs(det) < NIL) continue;
      const w = sub(this.points[i], p);
      const [t, k] = [cross(w, e) / det, cross(w, d) / det];
      if (k > -DUST && k < 1 + DUST && t > reach) {
        reach = t;
        best = this.s[i] + Math.max(0, Math.min(1, k)) * distance(this.points[i], this.points[i + 1]);
      }
    }
    return best;
  }
}

/** A polyline moved to its left by a distance, its pieces brought to meet; where it doubles back, a piece keeps its end. */
export function beside(points: readonly Vec2[], by: number): Vec2[] {
  return points.map((p, i) => {
    const [a, b] = [points[i - 1], points[i + 1]];
    const d = a && unit(sub(p, a));
    const e = b && unit(sub(b, p));
    if (!d || !e) return add(p, scale(left((d ?? e)!), by));
    const c = 1 + dot(d, e);
    return c < 0.1 ? add(p, scale(left(d), by)) : add(p, scale(add(left(d), left(e)), by / c));
  });
}
