/** A sentence of a trace begins with its time, or its round; beside a clock that is said already. */
export function plainSentence(sentence: string): string {
  return sentence.replace(/^([\d.]+ s|Round \d+): /, '');
}
