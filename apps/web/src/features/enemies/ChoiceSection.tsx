import { UnitNumber } from '../../fields/UnitNumber';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { useAppSelector } from '../../store/store';

/** How the next attack is picked: entries as wide as their weights, and how often each was chosen. */
export function ChoiceSection({ editor }: { editor: UnitEditor }) {
  const { unit } = editor;
  const answer = useAppSelector((state) => state.readout.answer);
  const kind = answer?.now.summary.kinds[unit.side === 'enemy' ? answer.now.enemyKind : answer.now.partyKind];
  const uses = kind?.id === unit.id ? kind.attacks : undefined;
  const starts = uses?.reduce((sum, use) => sum + use.starts, 0) ?? 0;
  const colour = `var(--e-${unit.colour})`;
  return (
    <div className="min-w-0 px-4 py-2 pl-3" aria-label="Choice" role="region">
      <div className="section-head">
        <h3>Choice</h3>
        <span className="note truncate">
          drawn by weight among the usable{starts ? `; ${starts.toLocaleString('en')} uses in the last runs` : ''}
        </span>
      </div>
      {unit.choice.priorities.map((priority, p) => {
        const total = priority.entries.reduce((sum, { weight }) => sum + weight, 0);
        return (
          <div key={p} className="mt-1.5">
            {unit.choice.priorities.length > 1 && (
              <p className="text-table text-ink-2">
                priority <b className="text-ink">{p + 1}</b>
                {p > 0 && ' when nothing above is usable'}
              </p>
            )}
            <div className="flex gap-1">
              {priority.entries.map((entry, e) => {
                const attack = unit.attacks.find(({ id }) => id === entry.attack);
                const use = uses?.find(({ id }) => id === entry.attack);
                const share = use && starts ? use.starts / starts : undefined;
                return (
                  <div key={entry.attack} className="min-w-[80px]" style={{ flexGrow: Math.max(entry.weight, 0.05 * total), flexBasis: 0 }}>
                    <div className="truncate border bg-sheet px-1.5 text-table leading-[20px]" title={attack?.name}>
                      {attack?.name ?? entry.attack}
                    </div>
                    <svg
                      width="100%"
                      height={8}
                      className="mt-[3px]"
                      role="img"
                      aria-label={!use ? 'not run yet' : share === undefined ? 'never used' : `${Math.round(100 * share)} % of uses`}
                    >
                      <rect width="100%" height={8} fill="var(--r-range)" opacity={0.5} />
                      <rect width={`${100 * (share ?? 0)}%`} height={8} fill={colour} />
                    </svg>
                    <UnitNumber editor={editor} path={`/choice/priorities/${p}/entries/${e}/weight`} width={72} compact />
                    <p className="mt-0.5 text-label text-ink-2">
                      {use
                        ? `${share === undefined ? 'never used' : Math.round(100 * share) + ' % of uses'}; ${use.hits} hits, ${use.misses} misses${use.blocked ? `, ${use.blocked} stopped by the window` : ''}`
                        : ''}
                    </p>
                  </div>
                );
              })}
            </div>
            {!priority.entries.length && <p className="text-table text-ink-2">Nothing to choose from: it never attacks.</p>}
          </div>
        );
      })}
    </div>
  );
}
