/** A frame that is waited for longer than this is too slow for more than is needed while one moves, ms. */
const SLOW = 34;

/** Slow frames, more of them than quick ones, until that is said. */
const WATCHED = 4;

/** Whether the graphics keep up: what takes long is drawn in every frame, or only when the eye rests. Once they did not, it stays so. */
export class FramePace {
  private slow = 0;

  get quick(): boolean {
    return this.slow < WATCHED;
  }

  /**
   * Tells how long a frame was waited for since it was asked for: graphics that are still busy with the one before let it wait. How
   * often one is asked for says nothing: who drags slowly asks seldom.
   *
   * @param waited ms
   */
  frame(waited: number): void {
    if (this.quick) this.slow = waited > SLOW ? this.slow + 1 : Math.max(0, this.slow - 1);
  }
}
