/** Stands in for the store of a browser in tests: nothing is in it, and nothing put there stays. */
export const get = (): Promise<undefined> => Promise.resolve(undefined);
export const set = (): Promise<void> => Promise.resolve();
export const del = set;
export const createStore = (): string => 'store';
export const entries = (): Promise<never[]> => Promise.resolve([]);
export const setMany = set;
export const delMany = set;
