/** A typed array twice as long with the same beginning. Columns grow by doubling, so adding a row is constant on average. */
export function doubled<T extends Float64Array | Int32Array | Uint8Array>(column: T): T {
  const wider = new (column.constructor as new (length: number) => T)(column.length * 2);
  wider.set(column as never);
  return wider;
}
