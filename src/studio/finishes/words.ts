/** How a price is read, by the unit a finish is sold in. */
export const UNIT_WORDS = { m2: 'a m²', litre: 'a litre', roll: 'a roll', box: 'a box', piece: 'a piece', metre: 'a metre' } as const;
