/** One thing wrong with a document: where (a JSON Pointer), which rule, and the value that breaks it. */
export interface Problem {
  path: string;
  rule: string;
  value: unknown;
  message: string;
}

/** A document that is refused. Nothing of it has been used. */
export class InvalidDocument extends Error {
  constructor(readonly problems: Problem[]) {
    super(problems.length === 1 ? sentence(problems[0]) : `${problems.length} problems; the first: ${sentence(problems[0])}`);
  }
}

/** "/units/clipper/health/max must not be less than 0.001: it is −3". */
export function sentence({ path, message, value }: Problem): string {
  return `${path || 'the document'} ${message}${value === undefined ? '' : `: it is ${shown(value)}`}`;
}

function shown(value: unknown): string {
  const text = typeof value === 'number' ? String(value) : (JSON.stringify(value) ?? String(value));
  return text.length > 80 ? text.slice(0, 77) + '…' : text;
}
