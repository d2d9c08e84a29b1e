/** Numbers as people type them. */
import { type QuantityInfo, shown } from '@insidia/core';

/** How far one arrow press moves a number of a unit. */
const STEPS: Record<string, number> = {
  s: 0.05,
  m: 0.1,
  'm/s': 0.1,
  'm/s²': 0.5,
  '°': 5,
  '°/s': 10,
  hp: 1,
  'hp/s': 0.5,
  '×': 0.05,
  '': 0.05,
};

export function stepOf(info: QuantityInfo): number {
  return info.whole ? 1 : (STEPS[info.unit] ?? 0.1);
}

/** Without the noise of binary fractions: 0.30000000000000004 is 0.3. */
export function tidy(value: number): number {
  return Number(value.toPrecision(10));
}

/** Within the field's limits; the sentence that says which limit is broken otherwise. */
export function limitBroken(value: number, info: QuantityInfo): string | undefined {
  if (!Number.isFinite(value)) return 'not a number';
  if (info.whole && !Number.isInteger(value)) return 'a whole number';
  if (value < info.min) return `at least ${shown(info.min)}`;
  return value > info.max ? `at most ${shown(info.max)}` : undefined;
}

const BY_ITSELF = /^-?(\d+\.?\d*|\.\d+)(e[-+]?\d+)?$/i;
const NUMBER = /^(\d+\.?\d*|\.\d+)(e[-+]?\d+)?/i;

/**
 * The value of an expression: numbers, + − × ÷ and brackets, a decimal comma too. Undefined where it is none.
 * A number by itself is taken to its last digit; what is worked out is rid of the noise of binary fractions.
 * Grammar: sum = product (± product)*; product = factor (×÷ factor)*; factor = number | − factor | (sum).
 */
export function evaluate(text: string): number | undefined {
  const source = text
    .replaceAll('×', '*')
    .replaceAll('÷', '/')
    .replaceAll('−', '-')
    .replace(/(\d),(\d)/g, '$1.$2')
    .replace(/\s+/g, '');
  let at = 0;
  const factor = (): number => {
    if (source[at] === '-') {
      at++;
      return -factor();
    }
    if (source[at] === '(') {
      at++;
      const value = sum();
      if (source[at++] !== ')') return NaN;
      return value;
    }
    const found = NUMBER.exec(source.slice(at));
    if (!found) return NaN;
    at += found[0].length;
    return Number(found[0]);
  };
  const product = (): number => {
    let value = factor();
    while (source[at] === '*' || source[at] === '/') value = source[at++] === '*' ? value * factor() : value / factor();
    return value;
  };
  const sum = (): number => {
    let value = product();
    while (source[at] === '+' || source[at] === '-') value = source[at++] === '+' ? value + product() : value - product();
    return value;
  };
  const value = sum();
  if (at !== source.length || !Number.isFinite(value)) return undefined;
  return BY_ITSELF.test(source) ? value : tidy(value);
}
