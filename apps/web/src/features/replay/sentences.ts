/** A sentence of a trace begins with its time; beside a clock that is said already. */
export function plainSentence(sentence: string): string {
  return sentence.replace(/^[\d.]+ s: /, '');
}
