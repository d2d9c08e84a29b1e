/** Cells of tables that leave for a spreadsheet. */

/** What a spreadsheet takes for the beginning of a formula, and what it passes over before one. */
// eslint-disable-next-line no-control-regex
const DANGEROUS = /^[=+\-@\u0000-\u001f\u007f-\u009f\uff1d\uff0b\uff0d\uff20]/;

/** Text that would be run as a formula is written with an apostrophe before it. A number is a number, below 0 as well. */
export function csvCell<T>(value: T): T | string {
  return typeof value === 'string' && DANGEROUS.test(value) ? `'${value}` : value;
}

export function csvRow<T extends Record<string, unknown>>(row: T): Record<string, unknown> {
  return Object.fromEntries(Object.entries(row).map(([name, value]) => [csvCell(name), csvCell(value)]));
}
