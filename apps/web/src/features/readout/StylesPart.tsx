import { type Clock, type Project, fixed, linear, rulerOf, unitIn } from '@insidia/core';
import { useAppSelector } from '../../store/store';
import { Part } from './Part';
import { called } from './called';
import { guarded } from '../../parts/guarded';

const LEFT = 92;
const RIGHT = 66;
const WIDTH = 308;

/** How far the measures lie apart when the player plays in another way: the range across play styles. */
export const StylesPart = guarded('The range of styles', function StylesPart({ project, clock }: { project: Project; clock: Clock }) {
  const styles = useAppSelector((state) => state.readout.styles);
  if (!project.styles.length) return null;
  return (
    <Part title="Play styles" note={styles ? `${styles.runs} runs each` : 'running …'}>
      {styles && (
        <div>
          <Range
            name={called('timeToKill', clock)}
            unit={unitIn(clock, 's')}
            values={styles.of.map(({ name, timeToKill }) => ({ name, value: timeToKill }))}
          />
          <Range
            name={called('timeToDown', clock)}
            unit={unitIn(clock, 's')}
            values={styles.of.map(({ name, timeToDown }) => ({ name, value: timeToDown }))}
          />
          <Range name="Party wins" unit="%" values={styles.of.map(({ name, won }) => ({ name, value: 100 * won }))} />
        </div>
      )}
    </Part>
  );
});

/** Each style a mark on a line from the least to the most. */
function Range({ name, unit, values }: { name: string; unit: string; values: { name: string; value: number | undefined }[] }) {
  const finite = values.filter((one): one is { name: string; value: number } => one.value !== undefined && Number.isFinite(one.value));
  const never = values.filter(({ value }) => value === Infinity);
  const [low, high] = rulerOf(
    finite.map(({ value }) => value),
    0,
  );
  const x = linear(low, high, LEFT + 6, WIDTH - RIGHT - 6);
  const words = values
    .map((one) => `${one.name} ${one.value === undefined ? 'none' : one.value === Infinity ? 'never' : `${fixed(one.value, 1)} ${unit}`}`)
    .join(', ');
  return (
    <svg width={WIDTH} height={17} role="img" aria-label={`${name} by play style: ${words}`}>
      <title>{words}</title>
      <text x={0} y={12} className="t12">
        {name}
      </text>
      <path d={`M${LEFT} 8.5 H${WIDTH - RIGHT}`} stroke="var(--hair)" />
      {finite.length > 0 && <path d={`M${x(low)} 8.5 H${x(high)}`} stroke="var(--ink-2)" strokeWidth={3} />}
      {finite.map((one) => (
        <circle key={one.name} cx={x(one.value)} cy={8.5} r={3.2} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={1.4} />
      ))}
      <text x={WIDTH} y={12} textAnchor="end" className="t2">
        {finite.length ? (high - low < 0.05 ? fixed(low, 1) : `${fixed(low, 1)}–${fixed(high, 1)}`) : never.length ? 'never' : '—'}
        {finite.length > 0 && ` ${unit}`}
        {finite.length > 0 && never.length > 0 && ', ∞'}
      </text>
    </svg>
  );
}
