/** Runs of a cell of the board until somebody asks for another number. */
export const BOARD_RUNS = { duel: 400, encounter: 200 } as const;
