/** How many made-up cases a property is tried on: as usual, or as many as INSIDIA_CASES says (INSIDIA_SEED draws others). */
export const casesOf = (usual: number): number => Number(process.env.INSIDIA_CASES ?? usual);

/** A count that is wanted of the usual cases, in proportion where fewer are asked for. */
export const ofCases = (count: number, usual: number): number => (count * Math.min(usual, casesOf(usual))) / usual;
