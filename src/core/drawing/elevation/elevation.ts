import { meanHex } from '../../finishes/finish';
import type { Placing } from '../../finishes/laying/place';
import { finishIn } from '../../finishes/store';
import type { Region } from '../../geometry/region';
import type { Vec2 } from '../../geometry/vec';
import type { Model } from '../../model/model';
import { modelKind } from '../../model/kinds';
import type { Finish, Opening, Project } from '../../project/schema';
import { standingIn } from '../../project/standing';
import { targetName } from '../../project/targets';
import { patchPlacing } from '../../shell/dress/dress';
import type { DressedFace, DerivedPatch } from '../../shell/dress/dressed';
import { faceX } from '../../shell/wall-face';
import { formatLength } from '../../units/length';
import { drawDimension } from '../dimension';
import { byThing, TYPE, carry, type DisplayItem, type MarkGroup } from '../display';
import { CHAINS, runChains, type Chain } from './chains';
import { openingFront } from './opening';
import { drawPieces } from './pieces';
import type { Placed } from './unroll';
import { NEAR } from '../../units/tolerance';

/** What units are laid on: a face, or a patch in front of it. */
export type LaidOn = DressedFace | DerivedPatch;

export interface ElevationOptions {
  /** Metres of the wall that one millimetre of the paper stands for: what stands clear of the wall stands clear by it. */
  scale: number;
  /** Where each face’s name is written under its length. */
  named: boolean;
  /** Which strings of dimensions of runs are drawn; left out: all of them. */
  chains?: readonly Chain[];
  /** The outlines of the units laid on a face or a patch, in its coordinates, by its key in `laidOn`; null while there are none. */
  units(key: string): readonly Vec2[][] | null;
}

/** Units whose rows lie closer than this on the paper are a tone and not lines, millimetres. */
const CLOSEST = 0.8;
/** Most units whose outlines are drawn: more are a tone. */
const MOST = 6000;

const keyOf = ({ face }: Placed): string => `${face.address} ${face.side!.s0}`;

/** All that units are laid on in an elevation, each under a key that stays the same while it is edited. */
export const laidOn = (faces: readonly Placed[]): { key: string; of: LaidOn }[] =>
  faces.flatMap((placed) => [
    { key: `face ${keyOf(placed)}`, of: placed.face },
    ...placed.face.patches.map((of) => ({ key: `patch ${of.patch.id} ${keyOf(placed)}`, of })),
  ]);

/** What is laid on a face beside its patches, or on a patch: its finish, where the pattern begins, and over what. */
export function laying(project: Project, of: LaidOn): { laid: Finish; placing: Placing; regions: readonly Region[] } {
  if ('patch' in of) return { ...patchPlacing(project, of), regions: of.regions };
  // The units of a face with patches run on behind them, and would show through.
  return { laid: of.laid, placing: of.placing, regions: of.patches.length ? [] : of.regions };
}

/** Whether the units on a face or a patch are drawn at all at a scale. */
export function unitsDrawn(project: Project, of: LaidOn, scale: number): boolean {
  const { laid, regions } = laying(project, of);
  return Boolean(laid.laying) && regions.length > 0 && laid.laying!.height >= CLOSEST * scale;
}

/**
 * Walls upright and true to scale, as one sees them from in front: their finish in pale, units as they are laid, patches,
 * openings, what else its kind draws there, their lengths and names. Model metres, y up from the floor.
 *
 * @returns one group a thing, from behind to the front
 */
export function drawElevation(model: Model, faces: readonly Placed[], options: ElevationOptions): MarkGroup[] {
  return faces.flatMap((placed) => {
    const { face, x } = placed;
    const side = face.side!;
    const key = keyOf(placed);
    const strings = runChains(model, placed, options.scale);
    const shown = (options.chains ?? CHAINS).filter((c) => strings[c].length);
    return [
      ...laidOn([placed]).map(({ key, of }) =>
        'patch' in of
          ? { key, title: of.patch.name, items: [...drawPatch(of, x, model.project), ...drawUnits(model.project, of, key, x, options)] }
          : { key, items: [...drawFace(model.project, placed), ...drawUnits(model.project, of, key, x, options)] },
      ),
      ...standingIn(model.shell.project, side.wall).flatMap((o) => {
        const items = drawOpeningUpright(o, placed);
        return items.length ? [{ key: `opening ${o.id} ${key}`, title: o.name, items }] : [];
      }),
      ...model.things.flatMap(({ collection, derived }) => {
        const items = modelKind(collection).elevation?.(derived, face) ?? [];
        return byThing(
          `${collection} ${(derived as { id?: string }).id ?? ''} ${key}`,
          carry(items, (p) => ({ x: p.x + x, y: p.y })),
        );
      }),
      ...drawPieces(model, placed, key),
      ...shown.map((c) => ({ key: `${c} ${key}`, items: strings[c] })),
      { key: `length ${key}`, items: drawLength(model.project, placed, options, shown.includes('widths below')) },
    ];
  });
}

/** A face: its outline and the colour of its finish. */
function drawFace(project: Project, { face, x }: Placed): DisplayItem[] {
  const side = face.side!;
  const outline = along([{ x: 0, y: side.foot }, { x: side.length, y: side.foot }, ...[...side.top].reverse()], x);
  return [
    { kind: 'fill', rings: [outline], ink: 'bare', colour: face.chosen ? pale(project, face.finish) : undefined, layer: 'face' },
    { kind: 'line', points: outline, closed: true, ink: 'line', pen: 0.5, layer: 'face' },
  ];
}

/** A patch: its outline, the colour of its finish, its panels. */
function drawPatch(derived: DerivedPatch, x: number, project: Project): DisplayItem[] {
  const { patch, regions, panels } = derived;
  const entity = patch.id;
  const rings = regions.flatMap((r) => [r.outer, ...r.holes]).map((r) => along(r, x));
  return [
    { kind: 'fill', rings, ink: 'bare', colour: pale(project, patch.finish), entity, layer: 'patch' },
    { kind: 'lines', rings, ink: 'line', pen: 0.35, entity, layer: 'patch' },
    ...(panels.length
      ? [{ kind: 'lines' as const, rings: panels.map((r) => along(r, x)), ink: 'line' as const, pen: 0.25 as const, layer: 'patch' as const }]
      : []),
  ];
}

function drawUnits(project: Project, of: LaidOn, key: string, x: number, { units, scale }: ElevationOptions): DisplayItem[] {
  const rings = unitsDrawn(project, of, scale) ? units(key) : null;
  if (!rings?.length || rings.length > MOST) return [];
  return [{ kind: 'lines', rings: rings.map((r) => along(r, x)), ink: 'joint', pen: 0.25, layer: 'face' }];
}

/** An opening as it is seen from one side of its wall; nothing of it where it lies beyond, or is a niche in the other side. */
function drawOpeningUpright(o: Opening, { face, x }: Placed): DisplayItem[] {
  const side = face.side!;
  if ((o.kind === 'niche' && o.swing !== side.side) || o.at < side.s0 - NEAR || o.at > side.s1 + NEAR) return [];
  return carry(openingFront(o, { from: side.side, outside: face.room === null }), (p) => ({ x: x + faceX(side, o.at + p.x), y: p.y }));
}

/** The length of a face, and its name, clear below it. @param lower below a string of widths */
function drawLength(project: Project, { face, x }: Placed, { scale, named }: ElevationOptions, lower: boolean): DisplayItem[] {
  const side = face.side!;
  const y = side.foot - (lower ? 10 : 6) * scale;
  const items = drawDimension({ x, y }, { x: x + side.length, y }, formatLength(side.length, project.units), { tick: 0.9 * scale });
  // One face alone is named by the words beside the drawing.
  const name = targetName(project, face.target).replace(/^.*, /, '');
  return named
    ? [
        ...items,
        {
          kind: 'text',
          at: { x: x + side.length / 2, y },
          text: name,
          mm: TYPE.value,
          ink: 'thin',
          weight: 400,
          angle: 0,
          layer: 'label',
          dy: 4.2,
          yields: 'down',
        },
      ]
    : items;
}

const along = (ring: readonly Vec2[], x: number): Vec2[] => ring.map((p) => ({ x: p.x + x, y: p.y }));

/** The colour of a finish, paled so that lines show on it. */
function pale(project: Project, finish: string): string {
  const n = parseInt(meanHex(finishIn(project, finish)).slice(1), 16);
  return `#${[16, 8, 0]
    .map((shift) => (n >> shift) & 255)
    .map((v) =>
      Math.round(v + (255 - v) * 0.45)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
}
