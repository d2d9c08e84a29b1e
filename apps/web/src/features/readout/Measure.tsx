import { fixed } from '@insidia/core';
import { Distribution } from '../../visuals/Distribution';
import { type Measured, changeSentence, inPercent, survivalSentence } from './words';
import { guarded } from '../../parts/guarded';

export const WIDTH = 308;

interface MeasureProps {
  name: string;
  /** Of what it is the median, where that can be mistaken. */
  note?: string;
  measured: Measured;
  values: number[];
  valuesBefore?: number[];
  unit: string;
  places?: number;
  /** What a median of +∞ means, where there can be one. */
  survives?: string;
  /** What is said where no run has a value. */
  none?: string;
  theme: string;
}

/** One sentence first, then the picture. */
export const Measure = guarded(
  'The measure',
  function Measure({ name, note, measured, values, valuesBefore, unit, places = 1, survives = '', none = '', theme }: MeasureProps) {
    const { summary, before } = measured;
    const open = summary && summary.infinite > 0;
    const anyFinite = values.some(Number.isFinite);
    return (
      <section className="mt-[7px]" aria-label={name} data-measure={name}>
        <div className="flex h-4 items-baseline gap-1.5 text-table">
          <b className="whitespace-nowrap">{name}</b>
          {/* Where there is no room for both, the number stays whole. */}
          {note && <span className="note min-w-0 truncate">{note}</span>}
          <span className={`flex-auto truncate text-right ${note ? 'shrink-0' : 'min-w-0'}`}>
            {!summary ? (
              <span className="text-ink-3">{none}</span>
            ) : Number.isFinite(summary.median) ? (
              <>
                <b data-median={summary.median}>
                  {fixed(summary.median, places)} {unit}
                </b>
                {open && <span className="text-ink-2">; {survivalSentence(summary, survives)}</span>}
              </>
            ) : (
              <span data-median="Infinity">
                <b>never</b>
                <span className="text-ink-2">; {survivalSentence(summary, survives)}</span>
              </span>
            )}
          </span>
        </div>
        <div className="truncate text-label text-ink-3">{changeSentence(measured, places)}</div>
        {summary && anyFinite && (
          <Distribution
            label={name}
            unit={unit}
            now={values}
            before={valuesBefore}
            median={summary.median}
            interval={summary.interval}
            medianBefore={before?.median}
            width={WIDTH}
            theme={theme}
          />
        )}
      </section>
    );
  },
);

/** Peak pressure: kept as a share, told in percent. */
export function PeakPressure({
  measured,
  values,
  valuesBefore,
  unit = '%/s',
  theme,
}: Pick<MeasureProps, 'measured' | 'values' | 'valuesBefore' | 'theme'> & { unit?: string }) {
  return (
    <Measure
      name="Peak pressure"
      note="each run’s own peak, their median"
      measured={inPercent(measured)}
      values={values.map((value) => value * 100)}
      valuesBefore={valuesBefore?.map((value) => value * 100)}
      unit={unit}
      theme={theme}
    />
  );
}
