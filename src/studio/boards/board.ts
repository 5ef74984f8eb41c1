import { create } from 'zustand';

/** Which board, page and item are in hand. */
export const useBoard = create<{ board: string | null; page: string | null; item: string | null }>()(() => ({ board: null, page: null, item: null }));
