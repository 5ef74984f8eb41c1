import { useStudio } from './studio';

/** What this browser remembers of how one works. Without storage nothing is remembered, and nothing is said. */
const LAYOUT = 'enstegon.layout';

type Layout = 'both' | 'drawing' | 'model';
const LAYOUTS: readonly string[] = ['both', 'drawing', 'model'] satisfies Layout[];

/** Sets the table as it was left, and remembers how it is left from now on. Returns what ends it. */
export function recallLayout(): () => void {
  try {
    const left = localStorage.getItem(LAYOUT);
    if (left && LAYOUTS.includes(left)) useStudio.setState({ layout: left as Layout });
  } catch {
    // Storage may be closed to the page.
  }
  return useStudio.subscribe(({ layout }, before) => {
    if (layout === before.layout) return;
    try {
      localStorage.setItem(LAYOUT, layout);
    } catch {
      // As above.
    }
  });
}
