/**
 * How near is the same: the one table of tolerances of the core. Lengths are metres about the corner of a house, where
 * doubles carry some 1e-14; meshes are floats, which carry some 1e-6. What samples light or draws textures has steps of
 * its own.
 */

/** Products of two lengths that are nought: areas, determinants, squares of dust. */
export const NIL = 1e-12;

/** What sums and turns leave of numbers that are equal. */
export const DUST = 1e-9;

/** A tenth of a micrometre: well below the lattice that clipping works on; lengths as short came of rounding. */
export const TIGHT = 1e-7;

/** Pitch of the lattice that clipping works on, metres: half of what counts as coincident. */
export const LATTICE = 5e-7;

/** A micrometre, and as little of a share or an angle: nothing is typed, drawn or built finer. */
export const NEAR = 1e-6;

/** A hundredth of a millimetre: points that were worked out in two ways, as where two planes of a roof meet, are one. */
export const TOUCH = 1e-5;

/** Corners of meshes nearer than this are welded: floats keep them apart by as much at the end of a long house. */
export const WELD = 2e-5;

/** A hair, a tenth of a millimetre: corners of different things as near meet, and what is thinner is no part of a building. */
export const HAIR = 1e-4;

/** Radians by which two triangles of one plane may differ. */
export const PLANE = 1e-3;
