import { laidFinish, placeOf, type Frame, type Placing } from '../../finishes/laying/place';
import { finishIn } from '../../finishes/store';
import type { Model } from '../../model/model';
import type { CommandArgs } from '../../project/commands';
import type { FaceLaying, Finish, Patch } from '../../project/schema';
import { addressOf, PATCH_PARTS, type Target } from '../../project/targets';
import { freeName } from '../../project/things';
import { NEAR } from '../../units/tolerance';
import { faceS } from '../wall-face';
import type { WallSide } from '../wall-types';
import { patchPlacing } from './dress';
import type { DressedFace } from './dressed';
import { patchOutline } from './patches';

type Wall = Extract<Target, { kind: 'wall' }>;

const faceOf = (model: Model, target: Wall): DressedFace | undefined => model.shell.levels.flatMap((l) => l.faces).find((f) => f.address === addressOf(target));

/** What of a rectangle lies on a side of a wall. */
const within = (frame: Frame, side: WallSide): Frame => ({
  ...frame,
  x0: Math.max(0, frame.x0),
  x1: Math.min(side.length, frame.x1),
  y0: Math.max(side.foot, frame.y0),
  y1: Math.min(side.height, frame.y1),
});

/** How near to an end a patch counts as reaching it, metres. */
const REACHES = 0.01;

/** How a finish comes: nothing said of a face. */
const PLAIN: FaceLaying = { laying: null, start: 'even', origin: { x: 0, y: 0 }, rotation: 0, scale: 1 };

/**
 * A laying seen in a mirror: its joints as far from the right end as they were from the left one. What is even, in the middle or
 * carried on round the corner stays so where that comes to the same.
 *
 * @param from where the pattern begins, in the frame it fills there
 * @param to the frame it is to fill
 */
function inMirror(own: FaceLaying | undefined, finish: Finish, from: { placing: Placing; frame: Frame }, to: Frame): FaceLaying | undefined {
  const laid = laidFinish(finish, own).laying;
  if (!laid) return own;
  const given = own ?? PLAIN;
  const shown = given.laying ?? finish.laying;
  // Rows that go up in steps go up the other way.
  const stepped = shown?.pattern === 'running' && Math.abs(shown.offset - 0.5) > NEAR && shown.offset > NEAR;
  const mirrored: FaceLaying = {
    ...given,
    laying: stepped ? { ...shown, offset: 1 - shown.offset } : given.laying,
    rotation: given.rotation && -given.rotation,
  };
  const width = to.x1 - to.x0;
  const alike = Math.abs(width - (from.frame.x1 - from.frame.x0)) < NEAR;
  const at = { x: width - (from.placing.origin.x - from.frame.x0), y: from.placing.origin.y - from.frame.y0 };
  if (given.start !== 'edge' && given.start !== 'point') {
    if (given.start !== 'even' || !alike) return stepped || given.rotation ? mirrored : own;
    const there = placeOf(laidFinish(finish, mirrored).laying, mirrored, to).origin.x - to.x0;
    const module = laid.width + laid.joint;
    const off = (there - at.x) / module;
    if (Math.abs(off - Math.round(off)) * module < NEAR) return stepped || given.rotation ? mirrored : own;
  }
  return { ...mirrored, start: 'point', origin: { x: at.x + laid.joint / 2, y: at.y + laid.joint / 2 } };
}

/** The rectangle round an outline on a face. */
function around(outline: readonly { x: number; y: number }[]): Frame {
  const [xs, ys] = [outline.map((p) => p.x), outline.map((p) => p.y)];
  return { angle: 0, x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) };
}

/**
 * A wall's whole treatment for another one: finish, patches, and how both are laid. Heights stay; what reaches from end to end
 * does so again, what stands at one end keeps its width there, what stands free keeps its distance from the middle.
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
  const layings: Record<string, FaceLaying> = {};
  const names = { ...project.patches };
  const patches = source.patches
    .filter(({ patch }) => patch.on.kind === 'wall')
    .flatMap((derived): Patch[] => {
      const { patch } = derived;
      const outline = patchOutline(patch, source);
      if (!outline) return [];
      const frame = within(around(outline), source.side!);
      const [n0, n1] = patch.shape.kind === 'band' ? [0, v] : place(frame.x0, frame.x1);
      if (n1 - n0 < 0.005 || n1 < 0.005 || n0 > v - 0.005) return [];
      const id = newId('patch');
      const name = freeName(patch.name.replace(/ \d+$/, ''), names);
      const copy: Patch = {
        ...patch,
        id,
        name,
        on: { kind: 'wall', room: to.room, wall: to.wall, side: to.side },
        shape: shapeOn(patch.shape, outline, frame, [n0, n1]),
      };
      names[id] = copy;
      for (const part of PATCH_PARTS) {
        const own = project.layings[addressOf({ kind: 'patch', patch: patch.id, part })];
        const { placing } = patchPlacing(project, derived);
        const there = { ...frame, x0: n0, x1: n1 };
        const laid = mirrored && part === 'field' ? inMirror(own, finishIn(project, patch.finish), { placing, frame }, there) : own;
        if (laid) layings[addressOf({ kind: 'patch', patch: id, part })] = laid;
      }
      return [copy];
    });
  const laying = project.layings[addressOf(from)];
  const finish = owner?.faces[`${from.wall}/${from.side}`] ?? owner?.walls ?? null;
  return {
    to: { room: to.room, wall: to.wall, side: to.side },
    finish,
    laying: (mirrored ? inMirror(laying, finishIn(project, source.finish), source, target.frame) : laying) ?? null,
    patches,
    layings,
  };

  function shapeOn(shape: Patch['shape'], outline: readonly { x: number; y: number }[], frame: Frame, [n0, n1]: [number, number]): Patch['shape'] {
    if (shape.kind === 'band') return shape;
    if (shape.kind === 'rectangle') {
      // What went up to the ceiling goes up to the one here.
      const full = shape.base + shape.height > source!.side!.height - REACHES;
      const height = Math.max(0.005, (full ? top : Math.min(top, shape.base + shape.height)) - shape.base);
      return { ...shape, at: faceS(target!.side!, (n0 + n1) / 2), width: n1 - n0, height };
    }
    const points = outline.map((p) => {
      const t = (p.x - frame.x0) / (frame.x1 - frame.x0 || 1);
      return { x: faceS(target!.side!, n0 + (mirrored ? 1 - t : t) * (n1 - n0)), y: p.y };
    });
    return { ...shape, points };
  }
}
