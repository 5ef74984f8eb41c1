import { create } from 'zustand';
import type { At } from '@/core/cabinetry/dividing';

/** The cell of a front that is in hand, on the docket and in the elevation alike. */
interface Front {
  unit: string | null;
  at: At;
}

export const useFront = create<Front>()(() => ({ unit: null, at: { row: 0, column: 0 } }));

/** Takes a cell of a unit in hand. */
export const takeCell = (unit: string, at: At): void => useFront.setState({ unit, at });
