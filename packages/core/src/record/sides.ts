/** The two sides of a fight, as numbers of the record. */
export const PARTY = 0;
export const ENEMY = 1;
