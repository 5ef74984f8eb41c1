import { create } from 'zustand';
import { FIRST_LOOK } from '@/core/project/looks';
import type { Look } from '@/core/project/schema';

/** The viewpoint and the picture in hand. */
export const useViews = create<{ viewpoint: string | null; picture: string | null }>()(() => ({ viewpoint: null, picture: null }));

interface LookState {
  look: Look;
  /** Whether one walks through the model. */
  walking: boolean;
  set(values: Partial<Look>): void;
}

/** How the model is shown in this window; viewpoints remember it. */
export const useLook = create<LookState>()((put) => ({
  look: FIRST_LOOK,
  walking: false,
  set: (values) => put((s) => ({ look: { ...s.look, ...values } })),
}));

/** Hides one thing in the view, or makes it see-through; a second time brings it back. */
export function toggleShown(id: string, how: 'hidden' | 'through'): void {
  const { look, set } = useLook.getState();
  const on = look[how].includes(id);
  set({
    hidden: look.hidden.filter((k) => k !== id),
    through: look.through.filter((k) => k !== id),
    ...(on ? {} : { [how]: [...look[how].filter((k) => k !== id), id] }),
  });
}
