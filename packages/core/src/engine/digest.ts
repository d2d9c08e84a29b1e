/**
 * The digest of a run: two 32-bit lanes over the little-endian bytes of its numbers, four bytes at a time. −0 counts as
 * 0; a NaN is an error, because a fight that holds one has gone wrong and must not be compared.
 */
const number = new Float64Array(1);

const words = new Int32Array(number.buffer);

/** The high word of −0. */
const MINUS = -2147483648;

export class Digest {
  private a = 0x811c9dc5 | 0;
  private b = 0x3c6ef372 | 0;

  word(value: number): void {
    this.a = Math.imul(this.a ^ value, 0x01000193);
    this.a ^= this.a >>> 15;
    this.b = Math.imul(this.b + value, 0x85ebca6b);
    this.b ^= this.b >>> 13;
  }

  /** @throws Error for NaN */
  number(value: number): void {
    if (value !== value) throw new Error('a run produced a value that is not a number');
    number[0] = value + 0;
    this.word(words[0]);
    this.word(words[1]);
  }

  /**
   * The first so many numbers of a column, read as the words they are made of: the same as `number` for each, in a third of
   * the time. Where one is NaN or −0, the slow way says so or mends it.
   */
  column(values: Float64Array, count: number): void {
    const halves = new Int32Array(values.buffer, values.byteOffset, 2 * count);
    let { a, b } = this;
    for (let i = 0; i < 2 * count; i += 2) {
      const low = halves[i];
      let high = halves[i + 1];
      if ((high & 0x7ff00000) === 0x7ff00000 && values[i >> 1] !== values[i >> 1]) this.number(values[i >> 1]);
      if (high === MINUS && low === 0) high = 0;
      a = Math.imul(a ^ low, 0x01000193);
      a ^= a >>> 15;
      b = Math.imul(b + low, 0x85ebca6b);
      b ^= b >>> 13;
      a = Math.imul(a ^ high, 0x01000193);
      a ^= a >>> 15;
      b = Math.imul(b + high, 0x85ebca6b);
      b ^= b >>> 13;
    }
    this.a = a;
    this.b = b;
  }

  /** Sixteen hexadecimal digits. */
  toString(): string {
    const hex = (lane: number) => (lane >>> 0).toString(16).padStart(8, '0');
    return hex(Math.imul(this.a ^ (this.b >>> 16), 0xc2b2ae35)) + hex(Math.imul(this.b ^ (this.a >>> 16), 0x27d4eb2f));
  }
}
