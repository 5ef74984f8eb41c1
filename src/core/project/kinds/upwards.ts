import { Dormer, Roof } from '../schema/roofs';
import { Beam, Slab, Stair, Void } from '../schema/stairs';
import { BARE, guardParts, SLABS } from './first-finishes';
import { kind, onLevel } from './kind';

/** Roofs with what stands on them, stairs, floors of their own, beams. */
export const upwardsKinds = {
  roofs: kind({
    schema: Roof,
    word: 'roof',
    onLevel: true,
    status: true,
    parts: () => [
      { part: 'covering', role: null, finish: BARE.cut },
      { part: 'soffit', role: 'joinery', finish: 'paint.skein' },
      { part: 'fascia', role: 'joinery', finish: 'paint.skein' },
      { part: 'timber', role: 'joinery', finish: 'timber.oak' },
    ],
    refers: ({ level }) => [onLevel(level)],
  }),
  dormers: kind({
    schema: Dormer,
    word: 'dormer',
    status: true,
    parts: ({ roof }, { roofs }) => [
      { part: 'walls', role: 'wall', finish: 'paint.skein' },
      { part: 'lining', role: 'ceiling', finish: BARE.ceiling },
      // It is covered as the roof it stands on.
      { part: 'covering', role: null, finish: roofs[roof]?.finishes.covering ?? BARE.cut },
      { part: 'frame', role: 'joinery', finish: 'paint.skein' },
      { part: 'glass', role: 'accent', finish: 'glass.clear' },
    ],
    refers: ({ roof }) => [{ to: 'roofs', id: roof, as: 'stands on a roof', gone: 'along' }],
    put: { title: 'Set dormer' },
  }),
  stairs: kind({
    schema: Stair,
    word: 'stair',
    onLevel: true,
    status: true,
    parts: ({ left, right, above }) => [
      { part: 'tread', role: 'floor', finish: 'timber.oak-plank' },
      { part: 'riser', role: 'joinery', finish: 'paint.skein' },
      { part: 'string', role: 'joinery', finish: 'paint.skein' },
      ...guardParts(left ?? right ?? above),
    ],
    refers: ({ level }) => [onLevel(level)],
    put: { title: 'Set stair' },
  }),
  voids: kind({
    schema: Void,
    word: 'void',
    onLevel: true,
    status: true,
    parts: ({ guard }) => guardParts(guard),
    refers: ({ level }) => [onLevel(level)],
    put: { title: 'Set void' },
  }),
  slabs: kind({
    schema: Slab,
    word: 'slab',
    onLevel: true,
    status: true,
    alike: ({ kind: own }) => ({ key: own, words: 'slabs' }),
    parts: ({ kind: own, guard }) => [
      { part: 'top', role: 'floor', finish: SLABS[own].top },
      { part: 'edge', role: 'joinery', finish: SLABS[own].edge },
      ...guardParts(guard),
    ],
    refers: ({ level }) => [onLevel(level)],
    put: { title: 'Set slab' },
  }),
  beams: kind({
    schema: Beam,
    word: 'beam',
    onLevel: true,
    status: true,
    parts: () => [{ part: 'body', role: 'joinery', finish: 'timber.oak' }],
    refers: ({ level }) => [onLevel(level)],
    put: { title: 'Set beam' },
  }),
};
