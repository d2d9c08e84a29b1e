/** A chart on a canvas. What draws it is fetched apart from the first view, which waits for runs anyway. */
import { type RefObject, useLayoutEffect, useRef, useState } from 'react';
import { whenIdle } from '../parts/later';
import type * as chart from './chart';

type Charts = typeof chart;

export interface ChartHandle<Data> {
  update: (data: Data) => void;
  destroy: () => void;
}

let here: Charts | undefined;
const fetched = async () => (here ??= await import('./chart'));
// One that can't be fetched now is asked for again by the chart that needs it, which says so.
whenIdle(() => void fetched().catch(() => undefined));

/**
 * @param make one of the charts; the same one for as long as the canvas stands
 * @param data drawn anew whenever it is another object
 */
export function useChart<Data>(
  canvas: RefObject<HTMLCanvasElement | null>,
  make: (charts: Charts, on: HTMLCanvasElement) => ChartHandle<Data>,
  data: Data,
  theme: string,
): void {
  const shown = useRef<ChartHandle<Data>>(null);
  const made = useRef(make);
  const [charts, setCharts] = useState(here);
  useLayoutEffect(() => {
    if (charts) return;
    let gone = false;
    fetched().then(
      (all) => gone || setCharts(all),
      // Thrown while it is drawn, so that the part around it says what failed.
      (error: unknown) =>
        gone ||
        setCharts(() => {
          throw error;
        }),
    );
    return () => void (gone = true);
  }, [charts]);
  useLayoutEffect(() => {
    if (!charts || !canvas.current) return;
    shown.current = made.current(charts, canvas.current);
    return () => {
      shown.current?.destroy();
      shown.current = null;
    };
  }, [charts, canvas]);
  useLayoutEffect(() => shown.current?.update(data), [charts, data, theme]);
}
