/**
 * Columns: one value a unit, in one array a quantity. Every column says with what it begins, and beginning a run puts that
 * back in one loop over all of them: what one run leaves behind, the next can't find.
 */

/** A typed array twice as long with the same beginning. Columns grow by doubling, so adding a row is constant on average. */
export function doubled<T extends Float64Array | Int32Array | Uint8Array>(column: T): T {
  const wider = new (column.constructor as new (length: number) => T)(column.length * 2);
  wider.set(column as never);
  return wider;
}

/** Most lists are empty at the end of a run, and emptying one is a call. */
export function emptyList(list: unknown[]): void {
  if (list.length > 0) list.length = 0;
}

export class Columns {
  /** Puts back what each column begins with, for so many units. */
  private readonly resets: ((units: number) => void)[] = [];
  private readonly allLists: unknown[][][] = [];

  /** @param capacity most units there can ever be in one run */
  constructor(protected readonly capacity: number) {}

  /** @param atFirst what it is for a unit that nothing has happened to yet; @param perUnit values a unit */
  protected numbers(atFirst = 0, perUnit = 1): Float64Array {
    return this.column(new Float64Array(this.capacity * perUnit), atFirst, perUnit);
  }

  protected bytes(atFirst = 0): Uint8Array {
    return this.column(new Uint8Array(this.capacity), atFirst, 1);
  }

  protected integers(atFirst = 0, perUnit = 1): Int32Array {
    return this.column(new Int32Array(this.capacity * perUnit), atFirst, perUnit);
  }

  private column<T extends Float64Array | Int32Array | Uint8Array>(column: T, atFirst: number, perUnit: number): T {
    column.fill(atFirst);
    this.resets.push((units) => column.fill(atFirst, 0, units * perUnit));
    return column;
  }

  /** A list a unit, empty at first. It is there once the unit has been taken. */
  protected lists<T>(): T[][] {
    const lists: T[][] = [];
    this.allLists.push(lists);
    this.resets.push((units) => {
      for (let unit = 0; unit < units; unit++) emptyList(lists[unit]);
    });
    return lists;
  }

  /** One list, empty at first. */
  protected list<T>(): T[] {
    return this.emptied<T[]>([], emptyList);
  }

  /** Anything that can be emptied: a map, a pool, a queue. */
  protected cleared<T extends { clear(): void }>(what: T): T {
    return this.emptied(what, () => what.clear());
  }

  /** The same of what may not be there. */
  protected clearedIf<T extends { clear(): void }>(what: T | null): T | null {
    return what && this.cleared(what);
  }

  private emptied<T>(what: T, empty: (what: T) => void): T {
    this.resets.push(() => empty(what));
    return what;
  }

  /** A number that no unit has had in this run is a unit's from now on. */
  protected takeUnit(unit: number): void {
    for (const lists of this.allLists) lists[unit] ??= [];
  }

  /** @param units how many have been taken since the last time */
  protected resetColumns(units: number): void {
    for (const reset of this.resets) reset(units);
  }
}
