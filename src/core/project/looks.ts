import type { Look } from './schema';

/** How the model is shown at first. */
export const FIRST_LOOK: Look = { projection: 'perspective', upright: false, mode: 'finishes', cut: true, section: null, hidden: [], through: [] };
