import type { Verdict } from '../measures/enough';
import { type Shape, circle, path } from './shape';

/** px at its own size */
export const VERDICT_SIZE = { width: 26, height: 12 };

/** Where a measure lies to its band, by shape first: a bracket is the band, the mark lies in it, beside it, or across its edge. */
export const VERDICT_SHAPES: Record<Verdict, readonly Shape[]> = {
  met: [
    path('M9 1.5 H7 V10.5 H9 M17 1.5 H19 V10.5 H17', { stroke: 'var(--met)', 'stroke-width': 1.6 }),
    circle(13, 6, 2.6, { fill: 'var(--met)' }),
  ],
  missedLow: [
    path('M14 1.5 H12 V10.5 H14 M22 1.5 H24 V10.5 H22', { stroke: 'var(--ink-3)', 'stroke-width': 1.4 }),
    path('M9 1.5 V10.5 L2 6 Z', { fill: 'var(--miss)' }),
  ],
  missedHigh: [
    path('M4 1.5 H2 V10.5 H4 M12 1.5 H14 V10.5 H12', { stroke: 'var(--ink-3)', 'stroke-width': 1.4 }),
    path('M17 1.5 V10.5 L24 6 Z', { fill: 'var(--miss)' }),
  ],
  undecided: [
    path('M5.5 1 H4 V11 H5.5 M15.5 1 H17 V11 H15.5', { stroke: 'var(--open)', 'stroke-width': 1.6, 'stroke-dasharray': '1.6 1.1' }),
    path('M9 6 H13 M21 6 H25.4', { stroke: 'var(--open)', 'stroke-width': 1.8, 'stroke-dasharray': '1.6 1.2' }),
    path('M17 2.2 L20.8 6 L17 9.8 L13.2 6 Z', { fill: 'var(--sheet)', stroke: 'var(--open)', 'stroke-width': 1.5 }),
  ],
};
