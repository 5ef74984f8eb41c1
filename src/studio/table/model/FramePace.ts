/** A frame that takes longer than this is too slow for more than is needed while one moves, ms. */
const SLOW = 34;

/** A pause between frames that is none of their making, ms. */
const PAUSE = 1000;

/** Slow frames, more of them than quick ones, until that is said. */
const WATCHED = 4;

/** Whether the graphics keep up: what takes long is drawn in every frame, or only when the eye rests. Once they did not, it stays so. */
export class FramePace {
  private slow = 0;
  private last = -Infinity;

  get quick(): boolean {
    return this.slow < WATCHED;
  }

  /** Tells that a frame is drawn. @param now ms */
  frame(now: number): void {
    const took = now - this.last;
    this.last = now;
    if (took > PAUSE || !this.quick) return;
    this.slow = took > SLOW ? this.slow + 1 : Math.max(0, this.slow - 1);
  }
}
