import type { BoardColumn, BoardRow, Shown } from '../analysis/board';
import { type BandMeasure, GOAL_MEASURES, commonClock, goalIn } from '../measures/list';
import { cellPicture, rowRuler } from './cell-picture';
import { numberOf, unitOf } from './goal-words';
import { linear } from './scale';
import { type Shape, circle, path, rect, svgAt, svgOf, text } from './shape';
import { VERDICT_SHAPES } from './verdict-mark';

export interface BoardPictureOptions {
  rows: readonly BoardRow[];
  columns: readonly BoardColumn[];
  cells: readonly (readonly Shown[])[];
  measure: BandMeasure;
  /** px */
  width: number;
}

const NAME = 150;
const HEAD = 26;
const ROW = 34;
const NUMBER = 62;

/** A whole board as one picture: what the grid on the page shows, to be printed or pasted elsewhere. */
export function boardPicture({ rows, columns, cells, measure, width }: BoardPictureOptions): {
  svg: string;
  width: number;
  height: number;
} {
  const each = (width - NAME) / columns.length;
  const height = HEAD + rows.length * ROW + 1;
  const { share = false } = GOAL_MEASURES[measure];
  // One name for all rows where all go by one clock; else each row says its own.
  const clocks = new Set(rows.map(({ clock }) => clock));
  const mixed = clocks.size > 1;
  const { label } = goalIn(measure, commonClock(clocks));
  const parts: string[] = [];
  const draw = (...shapes: Shape[]) => parts.push(svgOf(shapes));
  draw(rect(0, 0, width, height, { fill: 'var(--paper)' }));
  const unit = mixed ? '' : unitOf(measure, rows[0]?.clock);
  draw(text(4, 17, shortened(unit ? `${label}, ${unit}` : label, 24), { class: 't3' }));
  columns.forEach(({ name, number }, c) => draw(text(NAME + c * each + 6, 17, number ? `${number}  ${name}` : name, { class: 'tb' })));
  rows.forEach((row, r) => {
    const own = cells[r];
    const y = HEAD + r * ROW;
    draw(path(`M0 ${y} H${width}`, { stroke: 'var(--hair)' }));
    draw(text(4, y + (mixed ? 15 : 21), shortened(row.name, 24), { class: 't12' }));
    if (mixed) draw(text(4, y + 29, unitOf(measure, row.clock), { class: 't3' }));
    const { from, to } = rowRuler(
      own.map(({ values, styles }) => (styles ? styles.map(({ value }) => value) : values)),
      own.map(({ band }) => band),
      share,
    );
    own.forEach((cell, c) => {
      const x = NAME + c * each;
      draw(path(`M${x} ${y} V${y + ROW}`, { stroke: 'var(--hair)' }));
      if (!cell.values.length && !cell.styles?.length) {
        draw(text(x + 6, y + 21, 'not run', { class: 't3' }));
        return;
      }
      const options = { ...cell, share, from, to, width: Math.max(40, each - NUMBER), height: 30 };
      parts.push(svgAt(x + 3, y + 2, cell.styles ? stylesPicture(cell, options) : cellPicture(options)));
      draw(text(x + each - 4, y + 15, numberOf(measure, cell.estimate.value, row.clock), { class: 'tb', 'text-anchor': 'end' }));
      if (cell.stale) draw(text(x + each - 4, y + 29, 'stale', { class: 't3', 'text-anchor': 'end' }));
      else if (cell.verdict) parts.push(svgAt(x + each - 30, y + 19, VERDICT_SHAPES[cell.verdict]));
    });
  });
  draw(path(`M0 ${height - 0.5} H${width}`, { stroke: 'var(--rule)' }));
  return { svg: parts.join(''), width, height };
}

/** A mark a play style on the row's ruler, the least and the most joined, against the band. */
export function stylesPicture(
  { styles = [], band }: Pick<Shown, 'styles' | 'band'>,
  { from, to, width }: { from: number; to: number; width: number },
): Shape[] {
  const values = styles.map(({ value }) => value).filter((value) => !Number.isNaN(value));
  if (!values.length) return [];
  const x = linear(from, to, 4, width - 4);
  const clamp = (value: number) => Math.min(Math.max(x(value), 4), width - 4);
  const [left, right] = [clamp(band?.low ?? from), clamp(band?.high ?? to)];
  return [
    ...(band ? [rect(left, 4, Math.max(1, right - left), 22, { fill: 'var(--band)' })] : []),
    path(`M${clamp(Math.min(...values))} 15 H${clamp(Math.max(...values))}`, { stroke: 'var(--ink-2)', 'stroke-width': 3 }),
    ...values.map((value) => circle(clamp(value), 15, 3, { fill: 'var(--sheet)', stroke: 'var(--ink)', 'stroke-width': 1.3 })),
  ];
}

/** A name of at most so many letters, cut off where it has more. */
export const shortened = (name: string, most: number): string => (name.length > most ? `${name.slice(0, most - 1)}…` : name);
