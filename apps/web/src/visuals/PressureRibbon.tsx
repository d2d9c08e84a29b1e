import {
  type Clock,
  type EncounterReadout,
  unitIn,
  LULL_LEVEL,
  type Unit,
  clockTime,
  type Scale,
  linear,
  roundUp,
  ticks,
  momentWords,
} from '@insidia/core';
import { guarded } from '../parts/guarded';

interface Props {
  readout: EncounterReadout;
  before?: EncounterReadout;
  /** s → px */
  x: Scale;
  width: number;
  colourOf: (type: string) => Unit['colour'];
  nameOf: (type: string) => string;
  /** s: an instant that is pointed at on any of the charts with this clock. */
  instant?: number;
  onInstant?: (seconds: number | undefined) => void;
  onOpen?: (seconds: number) => void;
}

const HEIGHT = 132;
const BOTTOM = HEIGHT - 26;

/** Damage pressure over the encounter, stacked by enemy type, with the spread of the whole, wave marks and lulls. */
export const PressureRibbon = guarded(
  'The pressure ribbon',
  function PressureRibbon({ readout, before, x, width, colourOf, nameOf, instant, onInstant, onOpen }: Props) {
    const { times, pressure, p10, p90, median, lulls, waves, until } = readout;
    const { clock } = readout.summary;
    const bins = times.filter((time) => time <= until).length;
    const peak = Math.max(0.01, ...p90.slice(0, bins).map((value) => value ?? 0), ...median.slice(0, bins).map((value) => value ?? 0));
    const top = roundUp(peak * 100);
    const y = linear(0, top / 100, BOTTOM, 10);
    const shown = pressure.filter(({ mean }) => mean.some((value) => (value ?? 0) > 0.0005));
    const layers: { type: string; low: number[]; high: number[] }[] = [];
    let base = times.map(() => 0);
    for (const { type, mean } of shown) {
      const high = base.map((value, i) => value + (mean[i] ?? 0));
      layers.push({ type, low: base, high });
      base = high;
    }
    const area = (low: (number | undefined)[], high: (number | undefined)[]) => {
      const up: string[] = [];
      const down: string[] = [];
      for (let i = 0; i < bins; i++) {
        if (high[i] === undefined) break;
        up.push(`${x(times[i]).toFixed(1)} ${y(high[i] ?? 0).toFixed(1)}`);
        down.unshift(`${x(times[i]).toFixed(1)} ${y(low[i] ?? 0).toFixed(1)}`);
      }
      return up.length > 1 ? `M${up.join(' L')} L${down.join(' L')}Z` : '';
    };
    const line = (values: (number | undefined)[]) => {
      const points: string[] = [];
      for (let i = 0; i < Math.min(values.length, times.length) && times[i] <= until; i++) {
        const value = values[i];
        if (value === undefined) break;
        points.push(`${x(times[i]).toFixed(1)} ${y(value).toFixed(1)}`);
      }
      return points.length > 1 ? `M${points.join(' L')}` : '';
    };
    const bin =
      instant === undefined
        ? -1
        : Math.min(
            bins - 1,
            times.findIndex((time) => time >= instant),
          );
    return (
      <svg
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`Damage pressure over time: peak of the median ${Math.round(1000 * Math.max(...median.map((value) => value ?? 0))) / 10} % of the party’s health a second`}
        onPointerMove={(event) => onInstant?.(Math.max(0, x.invert(event.clientX - event.currentTarget.getBoundingClientRect().left)))}
        onPointerLeave={() => onInstant?.(undefined)}
        onDoubleClick={() => instant !== undefined && onOpen?.(instant)}
      >
        {ticks(0, top / 100, 3).map((tick) => (
          <g key={tick}>
            <path d={`M${x(0)} ${y(tick)} H${x(until)}`} stroke="var(--hair)" strokeWidth={0.6} />
            <text x={x(0) - 5} y={y(tick) + 4} textAnchor="end" className="t3">
              {Math.round(tick * 1000) / 10}
              {tick === 0 ? '' : ' %'}
            </text>
          </g>
        ))}
        <path d={area(p10, p90)} fill="var(--band)" />
        {layers.map(({ type, low, high }) => (
          <path
            key={type}
            d={area(low, high)}
            fill={`var(--e-${colourOf(type)})`}
            fillOpacity={0.9}
            stroke="var(--sheet)"
            strokeWidth={0.7}
          >
            <title>{nameOf(type)}</title>
          </path>
        ))}
        <path d={line(p90)} fill="none" stroke="var(--ink-2)" strokeDasharray="1 3" />
        <path d={line(p10)} fill="none" stroke="var(--ink-2)" strokeDasharray="1 3" />
        {before && <path d={line(before.median)} fill="none" stroke="var(--ghost)" strokeWidth={1.4} />}
        <path d={`M${x(0)} ${BOTTOM + 0.5} H${x(until)}`} className="axis" />
        {LULL_LEVEL < top / 100 && (
          <path d={`M${x(0)} ${y(LULL_LEVEL)} H${x(until)}`} stroke="var(--ink-3)" strokeDasharray="5 4" strokeWidth={0.8}>
            <title>at or below it the party has a lull</title>
          </path>
        )}
        {lulls
          .filter(({ from }) => from < until)
          .map(({ from, to }) => (
            <g key={from}>
              <path d={`M${x(from)} ${BOTTOM + 4} v4 H${x(Math.min(to, until))} v-4`} fill="none" stroke="var(--ink-2)" />
              {x(Math.min(to, until)) - x(from) > 24 && (
                <text x={(x(from) + x(Math.min(to, until))) / 2} y={BOTTOM + 19} textAnchor="middle" className="t3">
                  lull
                </text>
              )}
            </g>
          ))}
        {waves.map(({ id, started }) =>
          started && started.median < until ? (
            <path key={id} d={`M${x(started.median)} 8 V${BOTTOM}`} stroke="var(--ink)" strokeWidth={1} opacity={0.7} />
          ) : null,
        )}
        {bin >= 0 && instant !== undefined && instant <= until && (
          <g pointerEvents="none">
            <path d={`M${x(instant)} 4 V${BOTTOM}`} stroke="var(--ink)" strokeDasharray="3 3" />
            <text
              x={x(instant) + (x(instant) > width - 150 ? -6 : 6)}
              y={12}
              textAnchor={x(instant) > width - 150 ? 'end' : 'start'}
              className="t12 halo-s"
            >
              {clock === 'rounds' ? `round ${momentWords(clock, Math.ceil(instant))}` : clockTime(instant)} median{' '}
              <tspan className="tb">{percent(median[bin], clock)}</tspan>, p90 {percent(p90[bin], clock)}
            </text>
          </g>
        )}
      </svg>
    );
  },
);

const percent = (value: number | undefined, clock: Clock) =>
  value === undefined ? '—' : `${(100 * value).toFixed(1)} ${unitIn(clock, '%/s')}`;
