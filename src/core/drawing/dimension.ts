import { add, lerp, sub, unit, type Vec2 } from '../geometry/vec';
import { TYPE, type DisplayItem } from './display';
import { NEAR } from '../units/tolerance';

interface DimensionOptions {
  /** What is measured, where it can be chosen by its dimension. */
  entity?: string;
  /** Half of a tick across, metres. */
  tick?: number;
}

/** A dimension: line, oblique ticks and the figure above it. */
export function drawDimension(a: Vec2, b: Vec2, text: string, { entity, tick: half = 0.06 }: DimensionOptions = {}): DisplayItem[] {
  const d = unit(sub(b, a));
  const angle = Math.atan2(d.y, d.x);
  const upright = angle > Math.PI / 2 + NEAR || angle <= -Math.PI / 2 + NEAR ? angle + Math.PI : angle;
  const tick = (p: Vec2): DisplayItem => {
    const q = { x: (d.x - d.y) * half, y: (d.x + d.y) * half };
    return { kind: 'line', points: [sub(p, q), add(p, q)], closed: false, ink: 'measure', pen: 0.35, layer: 'dimension' };
  };
  return [
    { kind: 'line', points: [a, b], closed: false, ink: 'measure', pen: 0.18, layer: 'dimension', entity },
    tick(a),
    tick(b),
    { kind: 'text', at: lerp(a, b, 0.5), text, mm: TYPE.value, ink: 'measure', weight: 400, angle: upright, layer: 'dimension', dy: -1, entity },
  ];
}

/** The row each of several figures along a line stands in, so that none covers another: the first where there is room. */
export function inRows(figures: readonly { at: Vec2; angle: number; width: number }[]): number[] {
  const rows: { from: number; to: number }[][] = [];
  return figures.map(({ at, angle, width }) => {
    const along = at.x * Math.cos(angle) + at.y * Math.sin(angle);
    const own = { from: along - width / 2, to: along + width / 2 };
    const free = rows.findIndex((row) => row.every((o) => o.to <= own.from || o.from >= own.to));
    const row = free < 0 ? rows.length : free;
    (rows[row] ??= []).push(own);
    return row;
  });
}
