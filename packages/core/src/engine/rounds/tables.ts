/** How turns are taken, as a run reads it: part of the tables of a fight in rounds. */
import type { Tiling } from './cells';

/** How a unit takes its turns. */
export interface CompiledTurns {
  order: number;
  spread: number;
  /** attacks that it may begin in one turn */
  actions: number;
  /** cells */
  size: number;
  /** cost of the ground that it may go over in a turn */
  moves: number;
  moving: 'before' | 'after' | 'split';
  row: 'front' | 'back';
  /** What it does about hits, in the order in which it is tried. */
  reactions: CompiledReaction[];
  /** It knows only of whom it has noticed. */
  senses: boolean;
  /** Share of its turns in which it takes the best that it can reach; where it ends them. Null: nobody plays it. */
  plays: { best: number; ends: 'state' | 'careful' | 'forward' | 'still' } | null;
  /** By attack: cells that it goes at its target as it strikes. */
  lunges: number[];
  /** a turn */
  regen: number;
  shieldRegen: number;
  energyRegen: number;
}

/** Something a unit does about a hit, in nobody's turn. */
export interface CompiledReaction {
  does: 'dodge' | 'guard' | 'counter';
  /** a round */
  uses: number;
  /** guard: share of the damage that it takes off */
  reduces: number;
  /** counter: which attack */
  attack: number;
}

/** What a fight in rounds is fought by; a field of the tables that is null where it is fought in seconds. */
export interface CompiledRounds {
  order: 'bySide' | 'byOrder';
  /** The side whose turns come first, where they go by side. */
  first: number;
  /** When an order with a spread is drawn. */
  drawn: 'fight' | 'round';
  /** Without ground everyone is in reach of everyone. */
  board: CompiledBoard | null;
  /** A zone is entered by whoever comes over it; else by who ends its turn there. */
  zonesPassed: boolean;
  /** Without ground: who strikes by hand reaches the back row only where nobody stands in the front. */
  rows: boolean;
}

export interface CompiledBoard {
  tiling: Tiling;
  columns: number;
  rows: number;
  /** m: side of a cell */
  side: number;
  /** By class of ground: cells that nobody of it can be on. */
  blocked: boolean[][];
  /** What it costs to come onto each cell. */
  cost: number[];
  /** m: the middle of each. */
  x: number[];
  y: number[];
}
