import { useEffect, useRef, type KeyboardEvent, type RefObject } from 'react';

/**
 * Moves the focus into what has opened, and back to where it came from when that closes.
 *
 * @param first what of it gets the focus, as a selector; left out, the whole (which needs a `tabIndex` of −1)
 * @param open whether it is there
 */
export function useFocusInside<E extends HTMLElement>(first?: string, open = true): RefObject<E | null> {
  const ref = useRef<E>(null);
  useEffect(() => {
    if (!open) return;
    const from = document.activeElement as HTMLElement | null;
    const box = ref.current;
    // What sets the focus itself, by `autoFocus`, keeps it.
    if (box && !box.contains(from)) ((first ? box.querySelector<HTMLElement>(first) : null) ?? box).focus({ preventScroll: true });
    return () => {
      // Only where it would be lost: who has gone elsewhere stays there.
      const now = document.activeElement;
      if ((now === null || now === document.body || box?.contains(now)) && from?.isConnected) from.focus({ preventScroll: true });
    };
  }, [first, open]);
  return ref;
}

/**
 * Lets the arrow keys, Home and End go from one to the next in a list.
 *
 * @param selector what is gone through
 * @param way the arrows that lead on: along a row, or down a column
 * @returns whether the key was one of them
 */
export function arrowThrough(e: KeyboardEvent<HTMLElement>, selector: string, way: 'across' | 'down'): boolean {
  const [back, on] = way === 'across' ? ['ArrowLeft', 'ArrowRight'] : ['ArrowUp', 'ArrowDown'];
  if (![back, on, 'Home', 'End'].includes(e.key) || (e.target as HTMLElement).matches('input, textarea')) return false;
  const all = [...e.currentTarget.querySelectorAll<HTMLElement>(selector)];
  const at = all.findIndex((el) => el === document.activeElement || el.contains(document.activeElement));
  if (at < 0) return false;
  const next = e.key === 'Home' ? 0 : e.key === 'End' ? all.length - 1 : Math.min(all.length - 1, Math.max(0, at + (e.key === on ? 1 : -1)));
  all[next].focus();
  e.preventDefault();
  e.stopPropagation();
  return true;
}
