/** JSON has no infinity: a survivor's time is written as text. A replacer for `JSON.stringify`. */
export function infinityAsText(_key: string, value: unknown): unknown {
  return value === Infinity ? 'Infinity' : value === -Infinity ? '-Infinity' : value;
}
