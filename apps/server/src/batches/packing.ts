/** A sample as the database keeps it: names of the columns, and all their numbers in one run of bytes. */
import type { Sample } from '@insidia/core';

export interface PackedSample {
  runs: number;
  firstSeed: number;
  digests: string[];
  columns: string[];
  /** 64-bit floats of the machine's order, column by column: nothing is rounded on the way. */
  values: Buffer;
}

export function pack({ runs, firstSeed, digests, columns }: Sample): PackedSample {
  const names = Object.keys(columns);
  const values = new Float64Array(names.length * runs);
  names.forEach((name, i) => values.set(columns[name], i * runs));
  return { runs, firstSeed, digests, columns: names, values: bytesOf(values) };
}

export function bytesOf(values: Float64Array | Float32Array): Buffer {
  return Buffer.from(values.buffer, values.byteOffset, values.byteLength);
}

/** A copy: bytes from the database need not lie where numbers may. */
export function floatsOf<T extends Float64Array | Float32Array>(bytes: Uint8Array, type: new (buffer: ArrayBuffer) => T): T {
  return new type(Uint8Array.from(bytes).buffer);
}

/** JSON has neither infinity nor what is not a number: a survivor is written as text, a missing value as null. */
export function jsonNumbers(values: ArrayLike<number>): (number | string | null)[] {
  return Array.from(values, (value) =>
    value === Infinity ? 'Infinity' : value === -Infinity ? '-Infinity' : value === value ? value : null,
  );
}
