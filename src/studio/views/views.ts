import { create } from 'zustand';

/** The viewpoint and the picture in hand. */
export const useViews = create<{ viewpoint: string | null; picture: string | null }>()(() => ({ viewpoint: null, picture: null }));
