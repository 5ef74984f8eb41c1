import { addressOf, type Target } from '@/core/project/targets';
import type { Face } from '@/core/shell/dress/dressed';
import type { CommandArgs } from '@/core/project/commands';
import type { Model } from '@/core/model/model';
import type { Patch } from '@/core/project/schema';
import { patchOutline } from '@/core/shell/dress/patches';
import { faceS } from '@/core/shell/wall-face';

type Wall = Extract<Target, { kind: 'wall' }>;

const faceOf = (model: Model, target: Wall): (Face & { patches: { patch: Patch }[] }) | undefined =>
  model.shell.levels.flatMap((l) => l.faces).find((f) => f.address === addressOf(target));

/** How near to an end a patch counts as reaching it, metres. */
const REACHES = 0.01;

/**
 * A wall's whole treatment for another one: finish, laying and patches. Heights stay; what reaches from end to end does so
 * again, what stands at one end keeps its width there, what stands free keeps its distance from the middle.
 *
 * @param mirrored left and right change places
 * @returns null where either face is not there
 */
export function treatmentFor(model: Model, from: Wall, to: Wall, mirrored: boolean, newId: (prefix: string) => string): CommandArgs<'treatment.put'> | null {
  const [source, target] = [faceOf(model, from), faceOf(model, to)];
  if (!source?.side || !target?.side) return null;
  const { project } = model;
  const [w, v] = [source.side.length, target.side.length];
  const top = target.side.height;
  const owner = from.room ? project.rooms[from.room] : project.outside;
  const place = (x0: number, x1: number): [number, number] => {
    const [a, b] = mirrored ? [w - x1, w - x0] : [x0, x1];
    const [left, right] = [a < REACHES, b > w - REACHES];
    if (left && right) return [0, v];
    if (left) return [0, Math.min(v, b)];
    if (right) return [Math.max(0, v - (b - a)), v];
    const middle = v / 2 + ((a + b) / 2 - w / 2);
    return [middle - (b - a) / 2, middle + (b - a) / 2];
  };
  const patches = source.patches
    .map(({ patch }) => patch)
    .filter((patch) => patch.on.kind === 'wall')
    .flatMap((patch): Patch[] => {
      const on = { kind: 'wall' as const, room: to.room, wall: to.wall, side: to.side };
      const base = { ...patch, id: newId('patch'), on };
      const { shape } = patch;
      if (shape.kind === 'band') return [base];
      const outline = patchOutline(patch, source);
      if (!outline) return [];
      const xs = outline.map((p) => p.x);
      const [x0, x1] = [Math.min(...xs), Math.max(...xs)];
      const [n0, n1] = place(x0, x1);
      if (n1 - n0 < 0.005 || n1 < 0.005 || n0 > v - 0.005) return [];
      if (shape.kind === 'rectangle') {
        // What went up to the ceiling goes up to the one here.
        const full = shape.base + shape.height > source.side!.height - REACHES;
        const height = Math.max(0.005, (full ? top : Math.min(top, shape.base + shape.height)) - shape.base);
        return [{ ...base, shape: { ...shape, at: faceS(target.side!, (n0 + n1) / 2), width: n1 - n0, height } }];
      }
      const points = outline.map((p) => {
        const t = (p.x - x0) / (x1 - x0 || 1);
        return { x: faceS(target.side!, n0 + (mirrored ? 1 - t : t) * (n1 - n0)), y: p.y };
      });
      return [{ ...base, shape: { ...shape, points } }];
    });
  return {
    to: { room: to.room, wall: to.wall, side: to.side },
    finish: owner?.faces[`${from.wall}/${from.side}`] ?? owner?.walls ?? null,
    laying: project.layings[addressOf(from)] ?? null,
    patches,
  };
}
