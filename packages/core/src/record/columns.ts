/**
 * Columns: one value a unit, in one array a quantity. Every column says with what it begins, and beginning a run puts that
 * back in loops over all there are: what one run leaves behind, the next can't find.
 */

type Column = Float64Array | Int32Array | Uint8Array;

/** A typed array twice as long with the same beginning. Columns grow by doubling, so adding a row is constant on average. */
export function doubled<T extends Column>(column: T): T {
  const wider = new (column.constructor as new (length: number) => T)(column.length * 2);
  wider.set(column as never);
  return wider;
}

/** Most lists are empty at the end of a run, and emptying one is a call. */
export function emptyList(list: unknown[]): void {
  if (list.length > 0) list.length = 0;
}

/** Columns of one type of number: a loop over them knows what it writes. */
interface Beginnings<T extends Column> {
  columns: T[];
  /** What each begins with. */
  atFirst: number[];
  perUnit: number[];
}

const none = <T extends Column>(): Beginnings<T> => ({ columns: [], atFirst: [], perUnit: [] });

/** Values up to which writing them one by one is quicker than a call that fills them: a duel has two units and a hundred columns. */
const FEW = 40;

function putBack<T extends Column>({ columns, atFirst, perUnit }: Beginnings<T>, units: number): void {
  for (let c = 0; c < columns.length; c++) {
    const column = columns[c];
    const value = atFirst[c];
    const end = units * perUnit[c];
    if (end > FEW) column.fill(value, 0, end);
    else for (let i = 0; i < end; i++) column[i] = value;
  }
}

export class Columns {
  /** What the columns of each type begin with. */
  private readonly floats = none<Float64Array>();
  private readonly whole = none<Int32Array>();
  private readonly small = none<Uint8Array>();
  private readonly allLists: unknown[][][] = [];
  private readonly singleLists: unknown[][] = [];
  /** Empties what can be emptied. */
  private readonly empties: (() => void)[] = [];

  /** @param capacity most units there can ever be in one run */
  constructor(protected readonly capacity: number) {}

  /** @param atFirst what it is for a unit that nothing has happened to yet; @param perUnit values a unit */
  protected numbers(atFirst = 0, perUnit = 1): Float64Array {
    return begun(this.floats, new Float64Array(this.capacity * perUnit), atFirst, perUnit);
  }

  protected bytes(atFirst = 0): Uint8Array {
    return begun(this.small, new Uint8Array(this.capacity), atFirst, 1);
  }

  protected integers(atFirst = 0, perUnit = 1): Int32Array {
    return begun(this.whole, new Int32Array(this.capacity * perUnit), atFirst, perUnit);
  }

  /** A list a unit, empty at first. It is there once the unit has been taken. */
  protected lists<T>(): T[][] {
    const lists: T[][] = [];
    this.allLists.push(lists);
    return lists;
  }

  /** One list, empty at first. */
  protected list<T>(): T[] {
    const list: T[] = [];
    this.singleLists.push(list);
    return list;
  }

  /** Anything that can be emptied: a map, a pool, a queue. */
  protected cleared<T extends { clear(): void }>(what: T): T {
    this.empties.push(() => what.clear());
    return what;
  }

  /** The same of what may not be there. */
  protected clearedIf<T extends { clear(): void }>(what: T | null): T | null {
    return what && this.cleared(what);
  }

  /** A number that no unit has had in this run is a unit's from now on. */
  protected takeUnit(unit: number): void {
    for (const lists of this.allLists) lists[unit] ??= [];
  }

  /** @param units how many have been taken since the last time */
  protected resetColumns(units: number): void {
    putBack(this.floats, units);
    putBack(this.whole, units);
    putBack(this.small, units);
    for (let l = 0; l < this.allLists.length; l++) {
      const lists = this.allLists[l];
      for (let unit = 0; unit < units; unit++) emptyList(lists[unit]);
    }
    for (let l = 0; l < this.singleLists.length; l++) emptyList(this.singleLists[l]);
    for (let e = 0; e < this.empties.length; e++) this.empties[e]();
  }
}

/** A column among those that are put back. */
function begun<T extends Column>(beginnings: Beginnings<T>, column: T, atFirst: number, perUnit: number): T {
  column.fill(atFirst);
  beginnings.columns.push(column);
  beginnings.atFirst.push(atFirst);
  beginnings.perUnit.push(perUnit);
  return column;
}
