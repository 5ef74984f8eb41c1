import { create } from 'zustand';
import { FIRST_LOOK } from '@/core/project/looks';
import type { Look } from '@/core/project/schema';
import { FRAMES, ROUND_FRAMES, type Frame, type FrameName, type Quality } from './frames';

/** The viewpoint and the picture in hand. */
export const useViews = create<{ viewpoint: string | null; picture: string | null }>()(() => ({ viewpoint: null, picture: null }));

interface FrameState {
  /** By name, or of one's own size. */
  name: FrameName | 'Own size';
  own: Frame;
  quality: Quality;
  /** Whether the frame lies over the model, with thirds and safe edges. */
  guides: boolean;
}

/** The frame of the next picture, and how good it is to be. */
export const useFrame = create<FrameState>()(() => ({ name: 'Medium', own: { width: 1200, height: 900 }, quality: 'Client', guides: false }));

/** Size of a picture in a frame, and whether it is one all round. */
export function frameOf({ name, own }: Pick<FrameState, 'name' | 'own'>): Frame & { round: boolean } {
  if (name === 'Own size') return { ...own, round: false };
  const [width, height] = { ...FRAMES, ...ROUND_FRAMES }[name];
  return { width, height, round: name in ROUND_FRAMES };
}

/** Whether the model is shown in its real light when the eye rests, and how far that is: samples a pixel, or the first look; null while it is not. */
export const useTrueLight = create<{ on: boolean; samples: number | 'first look' | null }>()(() => ({ on: false, samples: null }));

/** Whether surfaces of the view shade one another where they meet. */
export const useShade = create<{ on: boolean }>()(() => ({ on: true }));

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
