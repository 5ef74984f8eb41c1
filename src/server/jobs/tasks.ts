import type { PictureFacts } from '../store/files';
import type { PictureKind } from './picture-kinds';
import type { CardFigures } from '../store/database';

/** How far a piece of work has come, 0 to 1, and what it is at. */
export interface Progress {
  share: number;
  at: string;
}

/** What is worked on in a process of its own: what each task is given and what it gives back. Everything travels as plain data; what is large, as files. */
export interface Tasks {
  /** Looks a picture through and makes it plain. */
  picture: { given: { file: string; out: string }; gives: PictureFacts };
  /** Reads a project file; its pictures lie in `out` afterwards. */
  import: {
    given: { file: string; out: string; id: string };
    gives: { id: string; name: string; data: Uint8Array; assets: PictureFacts[] };
  };
  /** The figures of a project's card. */
  card: { given: { project: string }; gives: Omit<CardFigures, 'seq'> };
  thumbnail: { given: { project: string; folder: string; out: string }; gives: { file: string } };
  glb: { given: { project: string; folder: string; out: string }; gives: { file: string } };
  pdf: { given: { project: string; folder: string; out: string; board: string }; gives: { file: string } };
  png: { given: { project: string; folder: string; out: string; board: string; page: string | null }; gives: { file: string } };
  /** A kept picture, as something to hand over. */
  handed: { given: { project: string; folder: string; out: string; picture: string; as: PictureKind; dots: number }; gives: { file: string } };
  /** A project file; of a damaged project, what of it can be read. */
  file: { given: { project: string; folder: string; out: string; damaged: boolean }; gives: { file: string } };
}
export type TaskName = keyof Tasks;

/** Work that one waits for at the screen goes past exports and imports. */
export const LANE: Record<TaskName, 'short' | 'long'> = {
  picture: 'short',
  card: 'short',
  thumbnail: 'short',
  import: 'long',
  glb: 'long',
  pdf: 'long',
  png: 'long',
  handed: 'long',
  file: 'long',
};

/** What goes to the process. */
export interface Call {
  id: number;
  task: TaskName;
  given: unknown;
}

/** What comes back from it. */
export type Reply =
  | { id: number; kind: 'progress'; progress: Progress }
  | { id: number; kind: 'done'; result: unknown }
  | { id: number; kind: 'refused'; code: string; message: string; ids: readonly string[] }
  | { id: number; kind: 'failed'; text: string };
