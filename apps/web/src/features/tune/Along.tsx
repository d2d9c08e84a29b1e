import { type AlongPoint, type Dial, type Objective, type Project, dialQuantity, dialValue, dialWords } from '@insidia/core';
import { NumberField } from '../../fields/NumberField';
import { useWidth } from '../../visuals/useWidth';
import { AlongCurve } from './AlongCurve';

interface Props {
  project: Project;
  objectives: readonly Objective[];
  dial: Dial;
  now: number;
  /** Values of the curve. */
  values: readonly number[];
  /** By objective: points that have been run. */
  curves: readonly (readonly AlongPoint[])[];
  chosen: number | undefined;
  lacking: number;
  saved: boolean;
  onChoose: (at: number) => void;
  onRange: (change: Partial<Pick<Dial, 'low' | 'high'>>) => void;
  onRun: () => void;
  /** Values that would tell better where a goal enters or leaves what is wanted. */
  between: number;
  onCloser: () => void;
}

const LEAST_WIDTH = 150;

/** Each goal along the chosen number. */
export function Along({
  project,
  objectives,
  dial,
  now,
  values,
  curves,
  chosen,
  lacking,
  saved,
  onChoose,
  onRange,
  onRun,
  between,
  onCloser,
}: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const { name, whose } = dialWords(project, dial);
  const info = dialQuantity(project, dial) ?? { label: name, unit: '', min: -1e9, max: 1e9, about: name };
  const columns = Math.max(1, Math.min(objectives.length, Math.floor(width / LEAST_WIDTH), 4));
  const run = curves[0]?.length ?? 0;
  return (
    <section aria-label={`Along ${name}`} className="border-t px-4 pb-3 pt-2">
      <div className="flex items-baseline gap-3">
        <h2 className="shrink-0 whitespace-nowrap text-section">
          {whose}: {name.toLowerCase()}
        </h2>
        <span className="note min-w-0 truncate">
          each goal along it; value, its 95 % interval, the middle half of the runs; the bracket is what is wanted
        </span>
        <span className="flex-1" />
        <span className="flex shrink-0 items-center gap-1 self-center text-label text-ink-3">
          between
          <span className="flex gap-1 text-table text-ink">
            {(['low', 'high'] as const).map((end) => (
              <NumberField
                key={end}
                compact
                bare
                info={{ ...info, label: end === 'low' ? 'Lowest value' : 'Highest value', unit: '' }}
                base={dial[end]}
                width={52}
                onCommit={(value) => onRange({ [end]: value })}
              />
            ))}
          </span>
        </span>
        {between > 0 && (
          <button
            type="button"
            className="btn shrink-0"
            disabled={!saved}
            onClick={onCloser}
            title="half-way between values of which one is wanted and the other is not"
          >
            {between === 1 ? 'A value' : `${between} values`} more where it changes
          </button>
        )}
        {lacking > 0 && (
          <button type="button" className="btn shrink-0" disabled={!saved} onClick={onRun}>
            Run {lacking} of {values.length} values
          </button>
        )}
      </div>
      <div ref={ref} className="mt-1 grid gap-x-4 gap-y-2" style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}>
        {run > 1 &&
          objectives.map((objective, i) => (
            <AlongCurve
              key={objective.column + objective.statistic}
              project={project}
              objective={objective}
              dial={dial}
              now={now}
              chosen={chosen}
              points={curves[i]}
              width={Math.floor((width - 16 * (columns - 1)) / columns)}
              onChoose={onChoose}
            />
          ))}
      </div>
      <div className="mt-1 flex flex-wrap items-baseline gap-x-1 gap-y-1 text-table" role="radiogroup" aria-label={`Values of ${name}`}>
        <span className="mr-1 text-label text-ink-3">look at</span>
        {values.map((at) => (
          <button key={at} type="button" role="radio" aria-checked={at === (chosen ?? now)} className="switch" onClick={() => onChoose(at)}>
            {dialValue(project, dial, at)}
          </button>
        ))}
      </div>
    </section>
  );
}
