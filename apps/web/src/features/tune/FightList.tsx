import type { ReactNode } from 'react';

interface Props {
  fights: readonly { key: string; name: string; note: string; kind: 'duel' | 'encounter' }[];
  current: string;
  onChoose: (key: string) => void;
  /** Above them: questions that are kept. */
  children: ReactNode;
}

/** The fights that can be asked about, and how the table reads. */
export function FightList({ fights, current, onChoose, children }: Props) {
  const part = (title: string, kind: Props['fights'][number]['kind']) => {
    const own = fights.filter((one) => one.kind === kind);
    return (
      own.length > 0 && (
        <section className="pb-2" aria-label={title}>
          <h3 className="px-4 pb-1 pt-3 text-section">{title}</h3>
          {own.map(({ key, name, note }) => (
            <button
              key={key}
              type="button"
              aria-current={key === current ? 'page' : undefined}
              onClick={() => onChoose(key)}
              className={`flex w-full items-baseline gap-2 border-t border-hair px-4 py-1 text-left ${key === current ? 'bg-sheet font-semibold shadow-[inset_3px_0_0_var(--ink)]' : ''}`}
            >
              <span className="min-w-0 flex-1 truncate" title={name}>
                {name}
              </span>
              <span className="shrink-0 text-label text-ink-3">{note}</span>
            </button>
          ))}
        </section>
      )
    );
  };
  return (
    <nav aria-label="Fights" className="scroll flex min-h-0 flex-col border-r bg-well">
      {children}
      {part('Encounters', 'encounter')}
      {part('Crowds', 'duel')}
      <span className="flex-1" />
      <section className="px-4 py-3 text-label text-ink-2" aria-label="How a bar reads">
        <h3 className="pb-1 text-table font-semibold">How a bar reads</h3>
        <svg
          width={136}
          height={88}
          role="img"
          aria-label="a dark bar for what was asked for, a pale one for what was not, a dotted one where none is seen, a struck ring where no fight went otherwise"
        >
          <path d="M36.5 2 V62" stroke="var(--rule)" />
          <rect x={37} y={6} width={28} height={10} fill="var(--ink-2)" opacity={0.85} />
          <path d="M56 11 H74" stroke="var(--ink)" />
          <text x={82} y={15} className="t2">
            asked for
          </text>
          <rect x={16} y={27} width={20} height={10} fill="var(--ink-2)" opacity={0.38} />
          <path d="M8 32 H24" stroke="var(--ink)" />
          <text x={82} y={36} className="t2">
            not asked
          </text>
          <rect x={37} y={48.5} width={10} height={9} fill="none" stroke="var(--ink-3)" strokeDasharray="1.6 1.4" />
          <path d="M26 53 H58" stroke="var(--ink-3)" />
          <text x={82} y={57} className="t2">
            none seen
          </text>
          <circle cx={36.5} cy={76} r={4} fill="none" stroke="var(--ink-3)" />
          <path d="M33.5 79 L39.5 73" stroke="var(--ink-3)" />
          <text x={82} y={79} className="t2">
            never
          </text>
        </svg>
        <p>Never: not one of the fights went otherwise. The thin line is the 95 % interval.</p>
      </section>
    </nav>
  );
}
