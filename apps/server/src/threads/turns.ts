/** Who is next: whoever has asked, one after the other, however much one of them has asked for. */
export class Turns<T> {
  private readonly lines = new Map<string, T[]>();

  get length(): number {
    let all = 0;
    for (const line of this.lines.values()) all += line.length;
    return all;
  }

  /** How many of somebody's wait. */
  waiting(of: string): number {
    return this.lines.get(of)?.length ?? 0;
  }

  add(of: string, item: T): void {
    const line = this.lines.get(of);
    if (line) line.push(item);
    else this.lines.set(of, [item]);
  }

  /** The first of whose turn it is, who then goes to the end. */
  next(): T | undefined {
    for (const [of, line] of this.lines) {
      const item = line.shift();
      this.lines.delete(of);
      if (line.length) this.lines.set(of, line);
      return item;
    }
    return undefined;
  }

  forEach(each: (item: T) => void): void {
    for (const item of [...this.lines.values()].flat()) each(item);
  }

  /** Takes one out that waits no longer. */
  drop(item: T): void {
    for (const [of, line] of this.lines) {
      const at = line.indexOf(item);
      if (at < 0) continue;
      line.splice(at, 1);
      if (!line.length) this.lines.delete(of);
      return;
    }
  }
}
