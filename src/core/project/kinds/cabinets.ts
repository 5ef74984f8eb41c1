import { Cabinet, JoineryStyle, Run } from '../schema/cabinets';
import { CABINETS } from './first-finishes';
import { kind, onLevel, type PartKind } from './kind';

/** What a unit is made of. */
const UNIT_PARTS: readonly PartKind[] = [
  { part: 'fronts', role: 'joinery', finish: CABINETS.fronts },
  { part: 'handles', role: 'metal', finish: CABINETS.handles },
  { part: 'carcass', role: 'joinery', finish: CABINETS.carcass },
  { part: 'drawers', role: 'joinery', finish: CABINETS.drawers },
  { part: 'glass', role: null, finish: CABINETS.glass },
  { part: 'wire', role: 'metal', finish: CABINETS.wire },
  { part: 'bins', role: null, finish: CABINETS.bins },
  { part: 'legs', role: null, finish: CABINETS.legs },
  { part: 'feet', role: 'joinery', finish: CABINETS.fronts },
];

/** The edging of boards that are seen: of the finish they have, until something else is chosen. */
const edging = ({ finishes }: { finishes: Record<string, string> }): PartKind => ({
  part: 'edges',
  role: 'joinery',
  finish: finishes.carcass ?? CABINETS.carcass,
});

/** What a run has as a whole, and what its units are made of. */
const RUN_PARTS: readonly PartKind[] = [
  { part: 'worktop', role: 'worktop', finish: CABINETS.worktop },
  { part: 'plinth', role: 'joinery', finish: CABINETS.fronts },
  { part: 'grilles', role: 'metal', finish: CABINETS.grilles },
  { part: 'panels', role: 'joinery', finish: CABINETS.fronts },
  { part: 'cornice', role: 'joinery', finish: CABINETS.fronts },
  { part: 'pelmet', role: 'joinery', finish: CABINETS.fronts },
  ...UNIT_PARTS,
];

/** Joinery styles, runs of cabinets and their units. */
export const cabinetKinds = {
  joinery: kind({ schema: JoineryStyle, word: 'joinery style' }),
  runs: kind({
    schema: Run,
    word: 'run',
    onLevel: true,
    status: true,
    parts: (run) => [...RUN_PARTS, edging(run)],
    refers: ({ level, legs }) => [
      onLevel(level),
      ...legs.flatMap((leg) => (leg.kind === 'wall' ? [{ to: 'walls', id: leg.wall, as: 'stands along a wall', gone: 'along' } as const] : [])),
    ],
    put: { title: 'Set run' },
  }),
  cabinets: kind({
    schema: Cabinet,
    word: 'unit',
    // What is built into it has parts of its own, which its makers know.
    openParts: true,
    parts: (unit) => [...UNIT_PARTS, edging(unit)],
    refers: ({ run, middle, like }) => [
      { to: 'runs', id: run, as: 'stands in a run', gone: 'along' },
      ...(middle?.of === 'unit' ? [{ to: 'cabinets', id: middle.id, as: 'keeps to a unit', gone: 'stays' } as const] : []),
      ...(middle?.of === 'opening' ? [{ to: 'openings', id: middle.id, as: 'keeps to an opening', gone: 'stays' } as const] : []),
      ...(like === null ? [] : [{ to: 'cabinets', id: like, as: 'is as wide as a unit', gone: 'stays' } as const]),
    ],
    put: { title: 'Set unit' },
  }),
};
