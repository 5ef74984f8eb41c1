import { create } from 'zustand';
import { api, type LibraryEntry } from './api';
import { useStudio } from './studio';
import { errorText } from './sync';

interface LibraryState {
  entries: LibraryEntry[];
  read: boolean;
}

/** The practice's own library, as far as this window has read it. */
export const useLibrary = create<LibraryState>()(() => ({ entries: [], read: false }));

const refuse = (error: unknown): void => useStudio.getState().say(errorText(error));

/** Reads the library again. */
export const readLibrary = (): Promise<void> =>
  api
    .library()
    .then((entries) => useLibrary.setState({ entries, read: true }))
    .catch(refuse);

/** Keeps a finish or a scheme beyond this project; one of the same name takes its place. */
export const keepInLibrary = (entry: Omit<LibraryEntry, 'id'>): Promise<void> => api.keepInLibrary(entry).then(readLibrary).catch(refuse);

export const forget = (id: string): Promise<void> => api.forget(id).then(readLibrary).catch(refuse);
