/** Nothing of it can be written in any more: whoever does so all the same fails there and then. @returns the same value */
export function frozen<T>(value: T): T {
  if (typeof value === 'object' && value !== null && !Object.isFrozen(value)) Object.values(Object.freeze(value)).forEach(frozen);
  return value;
}
