/** What each pixel of a picture shows, by numbers of names: 1 is the first of them, 0 nothing. */
export interface Mask {
  ids: Uint32Array;
  names: readonly string[];
}
