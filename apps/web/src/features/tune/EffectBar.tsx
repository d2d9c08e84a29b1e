import { type BandMeasure, type Clock, type PairedEffect, linear, numberOf, unitOf } from '@insidia/core';

interface Props {
  effect: PairedEffect;
  measure: BandMeasure;
  /** What its fight goes by; absent: seconds. */
  clock?: Clock;
  /** The largest effect of the column: what fills half of the cell. */
  most: number;
  /** Something is wanted of it; else it is looked at beside. */
  asked: boolean;
  /** px of the drawing */
  width: number;
}

/** A bar to the side to which a number moves a goal, with its interval; a word where there is no bar to be drawn. */
export function EffectBar({ effect, measure, clock, most, asked, width }: Props) {
  const middle = width / 2;
  const { says, difference, low, high, runs, touched } = effect;
  const unit = unitOf(measure, clock);
  const signed = (value: number) => `${value > 0 ? '+' : ''}${numberOf(measure, value, clock)}`;
  const interval = `${signed(low)} to ${signed(high)}${unit && ` ${unit}`}`;
  if (says === 'never')
    return (
      <span
        className="flex items-center gap-1.5 text-ink-3"
        title={`not one of ${runs} fights went otherwise: in these runs it does nothing`}
      >
        <Nothing /> never
      </span>
    );
  if (says === 'mute')
    return (
      <span className="text-ink-3" title={`of ${runs} runs the measure has no finite value before or after: it can’t speak here`}>
        no value
      </span>
    );
  const x = linear(-most, most, 1, width - 1);
  const clamp = (value: number) => Math.min(width, Math.max(0, x(value)));
  const seen = says !== 'none';
  const [from, to] = [Math.min(middle, clamp(difference)), Math.max(middle, clamp(difference))];
  return (
    <span
      className="flex items-center gap-1"
      title={`${signed(difference)}${unit && ` ${unit}`} (${interval}); ${touched} of ${runs} fights went otherwise${seen ? '' : '; none can be seen'}`}
    >
      <svg width={width} height={22} aria-hidden className="shrink-0">
        <path d={`M${middle + 0.5} 2 V20`} stroke="var(--rule)" />
        {seen ? (
          <rect x={from} y={6} width={Math.max(1, to - from)} height={10} fill="var(--ink-2)" opacity={asked ? 0.85 : 0.38} />
        ) : (
          <rect x={from} y={6.5} width={Math.max(1, to - from)} height={9} fill="none" stroke="var(--ink-3)" strokeDasharray="1.6 1.4" />
        )}
        <path d={`M${clamp(low)} 11 H${clamp(high)}`} stroke={seen ? 'var(--ink)' : 'var(--ink-3)'} />
      </svg>
      <span className={`min-w-0 flex-1 truncate text-right ${seen ? (asked ? 'font-semibold' : 'text-ink-2') : 'text-ink-3'}`}>
        {seen ? signed(difference) : '≈'}
        <span className="sr-only">
          , {interval}
          {seen ? '' : ', none seen'}
        </span>
      </span>
    </span>
  );
}

/** No fight went otherwise: a ring through which nothing goes. */
function Nothing() {
  return (
    <svg width={12} height={12} aria-hidden>
      <circle cx={6} cy={6} r={4} fill="none" stroke="var(--ink-3)" />
      <path d="M3 9 L9 3" stroke="var(--ink-3)" />
    </svg>
  );
}
