import { useEffect, type Dispatch, type RefObject } from 'react';
import type { View } from './marks';

/** How far one may go in and out, pixels a metre. */
export const CLOSEST = 2000;
export const FARTHEST = 4;

/** A view drawn larger or smaller about a point of the pane, which stays where it is. @param by turns of the wheel, as the browser counts them */
export function zoomed(v: View, at: { x: number; y: number }, by: number): View {
  const k = Math.min(CLOSEST, Math.max(FARTHEST, v.k * Math.exp(-by * 0.0015)));
  return { k, x: at.x - ((at.x - v.x) / v.k) * k, y: at.y - ((at.y - v.y) / v.k) * k };
}

/** The wheel over a pane brings its drawing nearer or farther. @param change given the view there is, and what it becomes */
export function useWheel(frame: RefObject<HTMLElement | null>, change: Dispatch<(v: View) => View>): void {
  useEffect(() => {
    const element = frame.current!;
    const wheel = (e: WheelEvent): void => {
      e.preventDefault();
      const box = element.getBoundingClientRect();
      change((v) => zoomed(v, { x: e.clientX - box.left, y: e.clientY - box.top }, e.deltaY));
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  }, [frame, change]);
}
