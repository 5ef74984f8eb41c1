import type { ComponentType } from 'react';
import { formName, KIND_NAMES } from '@/core/project/opening-defaults';
import { collections, kindOf, type CollectionName, type PROJECT_KINDS, type Thing } from '@/core/project/kinds';
import type { Project } from '@/core/project/schema';
import { type Target, targetName } from '@/core/project/targets';
import { stockItem } from '@/core/stock/stock';
import { BeamDocket, FenceDocket, GroundDocket, SlabDocket, VoidDocket } from '../docket/BuiltDocket';
import { ColumnDocket } from '../docket/ColumnDocket';
import { DormerDocket } from '../docket/DormerDocket';
import { LevelDocket } from '../docket/LevelDocket';
import { OpeningDocket } from '../docket/OpeningDocket';
import { Actions, PartSwatches } from '../docket/parts';
import { PieceDocket } from '../docket/PieceDocket';
import { RoofDocket } from '../docket/RoofDocket';
import { RooflightDocket } from '../docket/RooflightDocket';
import { RoomDocket } from '../docket/RoomDocket';
import { RunDocket } from '../docket/cabinets/RunDocket';
import { UnitDocket } from '../docket/cabinets/UnitDocket';
import { StairDocket } from '../docket/StairDocket';
import { WallDocket } from '../docket/WallDocket';
import { MouldingDocket } from '../finishes/MouldingDocket';
import { PatchDocket } from '../finishes/PatchDocket';

export interface DocketProps {
  id: string;
  /** The face of it that was pressed. */
  target: Target | null;
}

/** All that the studio knows of one kind of thing. */
export interface StudioKind<T extends Thing = Thing> {
  /** What its docket shows below the title. */
  docket: ComponentType<DocketProps>;
  /** The title of its docket; left out: its name. */
  title?(thing: T, project: Project): string;
  /** The line below the title; left out: the word of its kind. */
  line?(thing: T, project: Project, target: Target | null): string;
}

const kind = <K extends CollectionName>(_: K, own: StudioKind<Project[K][string]>): StudioKind => own as unknown as StudioKind;

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** A docket for things with nothing but parts. */
export function PlainDocket({ id }: DocketProps) {
  return (
    <>
      <PartSwatches id={id} />
      <Actions />
    </>
  );
}

/** What the studio knows of the kinds that can be selected, by collection. */
export const STUDIO_KINDS: Partial<Record<keyof typeof PROJECT_KINDS, StudioKind>> = {
  walls: kind('walls', {
    docket: WallDocket,
    title: (wall) => (wall.kind === 'boundary' ? 'Boundary' : 'Wall'),
    line: (_, project, target) => (target ? targetName(project, target) : ''),
  }),
  openings: kind('openings', { docket: OpeningDocket, line: ({ kind: own, form }) => `${KIND_NAMES[own]}, ${formName(own, form)}` }),
  columns: kind('columns', { docket: ColumnDocket }),
  rooflights: kind('rooflights', { docket: RooflightDocket }),
  levels: kind('levels', { docket: LevelDocket }),
  roofs: kind('roofs', { docket: RoofDocket }),
  dormers: kind('dormers', { docket: DormerDocket }),
  stairs: kind('stairs', { docket: StairDocket }),
  slabs: kind('slabs', { docket: SlabDocket }),
  voids: kind('voids', { docket: VoidDocket }),
  beams: kind('beams', { docket: BeamDocket }),
  grounds: kind('grounds', { docket: GroundDocket }),
  fences: kind('fences', { docket: FenceDocket, line: () => 'Outside' }),
  runs: kind('runs', { docket: RunDocket, line: () => 'Run of cabinets' }),
  cabinets: kind('cabinets', {
    docket: UnitDocket,
    title: ({ name }) => capital(name),
    line: ({ run }, project) => `Unit of ${project.runs[run]?.name ?? 'a run'}`,
  }),
  patches: kind('patches', { docket: PatchDocket }),
  mouldings: kind('mouldings', {
    docket: MouldingDocket,
    title: ({ name }) => capital(name),
    line: ({ room }, project) => project.rooms[room]?.name ?? 'Moulding',
  }),
  guides: kind('guides', { docket: PlainDocket, title: () => 'Guide line', line: () => 'walls catch on it' }),
  rooms: kind('rooms', { docket: RoomDocket, line: (_, project, target) => (target ? targetName(project, target) : 'Room') }),
  pieces: kind('pieces', { docket: PieceDocket, line: ({ maker }) => stockItem(maker)?.category ?? '' }),
};

/** The docket of a thing: its title, its line and what it shows; null where nothing is selected by that id. */
export function docketOf(project: Project, id: string, target: Target | null): { title: string; line: string; Docket: ComponentType<DocketProps> } | null {
  for (const collection of collections()) {
    const own = STUDIO_KINDS[collection];
    const thing = (project[collection] as Record<string, Thing>)[id];
    if (!own || !thing) continue;
    const word = capital(kindOf(collection).word);
    return { title: own.title?.(thing, project) ?? thing.name ?? word, line: own.line?.(thing, project, target) ?? word, Docket: own.docket };
  }
  return null;
}
