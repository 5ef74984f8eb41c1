import type { RefObject } from 'react';
import type { TablePoint } from './session';

type Find = (at: { clientX: number; clientY: number; shiftKey?: boolean }) => TablePoint | null;

const panes = new Map<string, { frame: RefObject<HTMLElement | null>; find: Find }>();

/** Makes a pane reachable for things dragged from the ledge; returns the way to take it off again. */
export function registerPane(name: string, frame: RefObject<HTMLElement | null>, find: Find): () => void {
  panes.set(name, { frame, find });
  return () => void panes.delete(name);
}

/** The point of the model under the pointer in whichever pane it is over. */
export function paneAt(clientX: number, clientY: number): TablePoint | null {
  // What came last lies over the others.
  for (const { frame, find } of [...panes.values()].reverse()) {
    const box = frame.current?.getBoundingClientRect();
    if (box && clientX >= box.left && clientX <= box.right && clientY >= box.top && clientY <= box.bottom) return find({ clientX, clientY });
  }
  return null;
}
