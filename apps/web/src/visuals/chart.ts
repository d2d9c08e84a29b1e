/** The one place that touches Chart.js: makes, updates and destroys a chart on a canvas. */
import { BarController, BarElement, CategoryScale, Chart, Filler, LineController, LineElement, LinearScale, PointElement } from 'chart.js';
import { token } from './theme';
import type { ChartHandle } from './useChart';

Chart.register(BarController, BarElement, LineController, LineElement, PointElement, LinearScale, CategoryScale, Filler);

export interface Curves {
  from: number;
  to: number;
  now: number[];
  before?: number[];
}

/** A ruler that is not drawn needs no words for its ticks. */
const unseen = { display: false, ticks: { autoSkip: false, maxTicksLimit: 2, callback: () => '' } } as const;

const points = (values: number[], { from, to }: Curves) => values.map((y, i) => ({ x: from + ((to - from) * i) / (values.length - 1), y }));

/** Two smooth curves on one ruler: now as a filled shape, before as a line. */
export function distributionChart(canvas: HTMLCanvasElement): ChartHandle<Curves> {
  const line = { pointRadius: 0, tension: 0, borderJoinStyle: 'round' as const };
  const chart = new Chart(canvas, {
    type: 'line',
    data: {
      datasets: [
        { data: [], ...line },
        { data: [], ...line },
      ],
    },
    options: {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      parsing: false,
      normalized: true,
      events: [],
      layout: { padding: 0 },
      scales: { x: { type: 'linear', ...unseen }, y: { type: 'linear', min: 0, ...unseen } },
    },
  });
  return {
    update(curves) {
      const [before, now] = chart.data.datasets;
      const peak = Math.max(...curves.now, ...(curves.before ?? [0]), 1e-12);
      Object.assign(now, {
        data: points(curves.now, curves),
        borderColor: token('--ink-2'),
        backgroundColor: token('--dist'),
        borderWidth: 1.2,
        fill: 'origin',
      });
      Object.assign(before, {
        data: curves.before ? points(curves.before, curves) : [],
        borderColor: token('--ghost'),
        borderWidth: 1.2,
        fill: false,
      });
      Object.assign(chart.options.scales?.x ?? {}, { min: curves.from, max: curves.to });
      Object.assign(chart.options.scales?.y ?? {}, { max: peak * 1.06 });
      chart.update('none');
    },
    destroy: () => chart.destroy(),
  };
}

export interface Bars {
  counts: number[];
  /** Bars that lie within what is wanted are darker. */
  inBand: boolean[];
}

/** Bars side by side over the whole width. */
export function histogramChart(canvas: HTMLCanvasElement): ChartHandle<Bars> {
  const chart = new Chart<'bar', number[], string>(canvas, {
    type: 'bar',
    data: { labels: [], datasets: [{ data: [], barPercentage: 0.94, categoryPercentage: 1 }] },
    options: {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      events: [],
      layout: { padding: 0 },
      scales: { x: { display: false, offset: true }, y: { min: 0, ...unseen } },
    },
  });
  return {
    update({ counts, inBand }) {
      const [bars] = chart.data.datasets;
      chart.data.labels = counts.map(String);
      bars.data = counts;
      bars.backgroundColor = inBand.map((inside) => token(inside ? '--bar' : '--bar-out'));
      chart.update('none');
    },
    destroy: () => chart.destroy(),
  };
}
