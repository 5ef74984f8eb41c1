import { get } from './session';

/** Ids of the selected pieces. */
export const selectedPieces = (): string[] =>
  get()
    .selection.map((s) => s.entity)
    .filter((id) => get().project.pieces[id]);
