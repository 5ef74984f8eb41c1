import type { Target } from '@/core/project/targets';
import { create } from 'zustand';
import { Deriver } from '@/core/model/derive';
import type { Model } from '@/core/model/model';
import type { CommandArgs, CommandName } from '@/core/project/commands';
import { finishIn } from '@/core/finishes/store';
export { pointName, targetName } from '@/core/project/targets';
import type { Phase } from '@/core/project/phase';
import { collectionOf } from '@/core/project/things';
import {
  DEFAULTS,
  emptyProject,
  type Finish,
  type Opening,
  type OpeningForm,
  type Project,
  type Rooflight,
  type Status,
  type WallTop,
} from '@/core/project/schema';
import type { DisplayItem } from '@/core/drawing/display';
import type { Elevation } from '@/core/drawing/elevation/unroll';
import type { Make } from '../tools/make';
import { FIRST_LOOK } from '@/core/project/looks';
import { useLook } from '../views/views';
import { Gesture } from './gesture';
import { errorText, Sync, type SyncState } from './sync';

export const STAGES = ['Shell', 'Fit-out', 'Finishes', 'Light', 'Views', 'Boards', 'Schedules'] as const;
export type Stage = (typeof STAGES)[number];

/** What a press on the table does. */
export type Tool =
  | { kind: 'select' }
  | { kind: 'walls'; shape: WallShape; boundary?: boolean }
  | { kind: 'opening'; opening: Opening['kind']; form: OpeningForm; row?: number }
  | { kind: 'recess'; make: 'recess' | 'boxing' }
  | { kind: 'column'; section: 'square' | 'round' }
  | { kind: 'rooflight'; form: Rooflight['form'] }
  | { kind: 'outline'; make: Make }
  | { kind: 'split' }
  | { kind: 'guide' }
  | { kind: 'underlay'; step: 'first' | 'second' }
  | { kind: 'place'; card: string }
  /** A unit of a run, in the words of its line. */
  | { kind: 'unit'; said: string }
  | { kind: 'finish'; finish: string }
  /** Picks the finish of a surface up. */
  | { kind: 'pick' }
  /** Copies the whole treatment of a wall onto others. */
  | { kind: 'treat'; from: Extract<Target, { kind: 'wall' }>; mirrored: boolean };

/** The ways walls are drawn. */
export type WallShape = 'chain' | 'rectangle' | 'arc' | 'L' | 'T' | 'U' | 'bay';

/** What the next walls are made of, and how their lengths are meant. */
export interface WallPen {
  type: string | null;
  thickness: number;
  reference: 'inside' | 'centre' | 'outside';
  top: WallTop;
  base: number;
  status: Status;
  /** Directions are kept to multiples of so many degrees; null: free, catching 45° nearby. */
  angles: number | null;
  /** How outlines are drawn: by two opposite corners, or corner by corner. */
  outline: 'rectangle' | 'corners';
  /** Where stairs lead: what is there to climb to, a slab of the level by its id, or a height. */
  climb: { to: 'level' } | { to: 'slab'; slab: string } | { to: 'height'; metres: number };
}

/** What lies under the pointer, or is selected: an entity and, where it has several, the surface. */
export interface Spot {
  entity: string;
  target: Target | null;
}

/** The measuring line: what is being drawn or moved, and typed values for it. */
export interface Measure {
  /** Labelled values in metres, in typing order. */
  fields: { label: string; value: number }[];
  note: string;
  /** Typed text of the field being typed; null while the pointer leads. */
  typed: string | null;
  field: number;
}

export interface StudioState {
  id: string;
  ready: boolean;
  failed: string | null;
  /** The project with everything done in this window. */
  project: Project;
  /** What is shown: the project, or a preview of what is being dragged. */
  model: Model;
  sync: Omit<SyncState, 'project'>;
  stage: Stage;
  level: string;
  room: string | null;
  selection: Spot[];
  hover: Spot | null;
  tool: Tool;
  measure: Measure | null;
  /** Marks the tool shows in the plan while it works. */
  marks: DisplayItem[];
  /** Points the tool shows in 3D while it works. */
  ghost: { x: number; y: number }[];
  notice: string | null;
  /** What the step done last has done, said where it can be taken back. */
  told: string | null;
  layout: 'both' | 'drawing' | 'model';
  /** Whether the docket is unfolded. */
  docket: boolean;
  pen: WallPen;
  /** The house as it stands now, or as it will be. */
  phase: Phase;
  /** Whether the plan shows the walls of the level below, faintly. */
  showBelow: boolean;
  /** The wall face shown in elevation in place of the plan. */
  elevation: Elevation | null;
  /** Id of the set that is open, so that one of its pieces is chosen alone. */
  openSet: string | null;

  run<N extends CommandName>(command: N, args: CommandArgs<N>): boolean;
  /** Shows what a command would do, without doing it. Returns its refusal, or null. */
  preview<N extends CommandName>(command: N, args: CommandArgs<N>): string | null;
  endPreview(): void;
  undo(): void;
  redo(): void;
  select(spots: Spot[]): void;
  setHover(spot: Spot | null): void;
  setTool(tool: Tool): void;
  setStage(stage: Stage): void;
  setRoom(room: string | null): void;
  say(notice: string | null): void;
  /** Says what the step done last has done, with a way to take it back. */
  tell(told: string | null): void;
  setPhase(phase: Phase): void;
}

const deriver = new Deriver();
let sync: Sync | null = null;
/** What is being dragged, hovered or typed over, and the model of the project it began on. */
let gesture: Gesture | null = null;
let resting: Model | null = null;
/** The model of a project as it is shown; of the one a gesture began on the very model that was there. */
const modelOf = (project: Project, phase: Phase): Model =>
  resting?.project === project && resting.shell.phase === phase ? resting : deriver.derive(project, phase);
const blank = emptyProject('none', 'Project');

export const useStudio = create<StudioState>()((set, get) => ({
  id: '',
  ready: false,
  failed: null,
  project: blank,
  model: deriver.derive(blank),
  sync: { status: 'kept', keptAt: null, undo: [], redo: [], earlier: false, message: null, aside: [] },
  stage: 'Shell',
  level: 'ground',
  room: null,
  selection: [],
  hover: null,
  tool: { kind: 'select' },
  measure: null,
  marks: [],
  ghost: [],
  notice: null,
  told: null,
  layout: 'both',
  docket: true,
  pen: {
    type: null,
    thickness: DEFAULTS.wall.outside,
    reference: 'inside',
    top: { kind: 'ceiling' },
    base: 0,
    status: 'new',
    angles: null,
    outline: 'corners',
    climb: { to: 'level' },
  },
  showBelow: true,
  phase: 'after',
  elevation: null,
  openSet: null,

  run(command, args) {
    const shown = gesture?.base === get().project ? gesture.commit(command, args) : null;
    gesture = null;
    try {
      sync?.run(command, args, shown);
      set({ notice: null, told: null });
      return true;
    } catch (error) {
      set({ notice: errorText(error) });
      return false;
    } finally {
      // What was shown and is not what was done goes.
      get().endPreview();
    }
  },
  preview(command, args) {
    const { project, phase, model } = get();
    try {
      if (gesture?.base !== project) gesture = new Gesture(project);
      const next = gesture.show(command, args).project;
      if (model.project === project) resting = model;
      if (model.project !== next || model.shell.phase !== phase) set({ model: modelOf(next, phase) });
      return null;
    } catch (error) {
      // What a press would not do is not shown: neither this nor what was shown before it.
      if (model.project !== project) set({ model: modelOf(project, phase) });
      return errorText(error);
    }
  },
  endPreview() {
    const { project, phase, model } = get();
    gesture = null;
    // Going back to where it began makes nothing.
    if (model.project !== project) set({ model: modelOf(project, phase) });
  },
  undo() {
    set({ notice: null, told: null });
    sync?.undo();
  },
  redo() {
    set({ notice: null, told: null });
    sync?.redo();
  },
  // What was said is over when the next thing is done.
  select: (selection) => set({ selection, notice: null }),
  setHover(hover) {
    const old = get().hover;
    if (old?.entity !== hover?.entity || JSON.stringify(old?.target) !== JSON.stringify(hover?.target)) set({ hover });
  },
  // What a tool showed goes with it.
  setTool(tool) {
    get().endPreview();
    set({ tool, measure: null, marks: [], ghost: [], notice: null });
  },
  setStage(stage) {
    get().setTool({ kind: 'select' });
    set({ stage });
  },
  setRoom: (room) => set({ room, notice: null, selection: room ? [{ entity: room, target: { kind: 'floor', room } }] : [] }),
  say: (notice) => set({ notice }),
  tell: (told) => set({ told }),
  setPhase(phase) {
    get().endPreview();
    set({ phase, model: deriver.derive(get().project, phase) });
  },
}));

/** Opens a project in this window; returns the way to close it. */
export function openProject(id: string): () => void {
  let closed = false;
  useStudio.setState({
    id,
    ready: false,
    failed: null,
    selection: [],
    room: null,
    hover: null,
    tool: { kind: 'select' },
    stage: 'Shell',
    elevation: null,
    openSet: null,
    phase: 'after',
  });
  // How another project was looked at does not carry over.
  useLook.setState({ look: FIRST_LOOK, walking: false });
  const publish = ({ project, ...rest }: SyncState): void => {
    const state = useStudio.getState();
    const changed = project !== state.project;
    const exists = (entity: string): boolean =>
      collectionOf(project, entity) !== null || Object.values(project.boards).some((b) => Object.hasOwn(b.items, entity));
    useStudio.setState({
      project,
      sync: rest,
      ready: true,
      // What was shown last may be what was done: it is there already.
      ...((changed && state.model.project !== project) || !state.ready ? { model: deriver.derive(project, state.phase) } : {}),
      ...(state.elevation && !project.walls[state.elevation.wall] ? { elevation: null } : {}),
      ...(changed ? { selection: state.selection.filter((s) => exists(s.entity)) } : {}),
      ...(state.room && !project.rooms[state.room] ? { room: null } : {}),
      ...(project.levels[state.level] ? {} : { level: Object.keys(project.levels)[0] ?? 'ground' }),
    });
  };
  Sync.open(id, publish).then(
    (opened) => {
      if (closed) opened.close();
      else sync = opened;
    },
    (error: unknown) => useStudio.setState({ failed: errorText(error) }),
  );
  return () => {
    closed = true;
    sync?.close();
    sync = null;
  };
}

/** Whether a project is the one that is open here and takes edits. */
export const isOpen = (id: string): boolean => sync !== null && useStudio.getState().id === id;
export const dismissMessage = (): void => sync?.dismiss();
export const retryAside = (id: string): void => sync?.retry(id);
export const letAsideGo = (id: string): void => sync?.letGo(id);

/** A finish of the project in hand, by id. */
export const useFinish = (id: string): Finish => useStudio((s) => finishIn(s.project, id));

/** A new id of this window. */
export const newId = (prefix: string): string => `${prefix}-${crypto.randomUUID().slice(0, 13)}`;
