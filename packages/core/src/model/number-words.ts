/** A number of the document as people read it. */
export function numberWords(value: number): string {
  return String(Number(value.toFixed(4))).replace('-', '−');
}
