/** Lines of cells below one another. @param left how many columns stand to the left; numbers stand to the right */
export function textTable(head: readonly string[], lines: readonly (readonly string[])[], left: number): string {
  const widths = head.map((title, i) => Math.max(title.length, ...lines.map((line) => line[i].length)));
  const write = (line: readonly string[]) =>
    line
      .map((cell, i) => (i < left ? cell.padEnd(widths[i]) : cell.padStart(widths[i])))
      .join('  ')
      .trimEnd();
  return [head, ...lines].map(write).join('\n') + '\n';
}
