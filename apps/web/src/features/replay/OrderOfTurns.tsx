import type { Replay, TurnLook, UnitHead } from '@insidia/core';
import { Glyph } from '../../visuals/Glyph';

/** As many as are shown at once. */
const SHOWN = 14;

interface Props {
  replay: Replay;
  heads: ReadonlyMap<string, UnitHead>;
  turn: TurnLook;
  selected: number;
  onSelect: (unit: number) => void;
}

/** Who has a turn next, in their order; a rule where a round begins. */
export function OrderOfTurns({ replay, heads, turn, selected, onSelect }: Props) {
  const own = turn.order.findIndex(({ unit }) => unit === selected);
  // The unit that is looked at is always among them.
  const shown = turn.order.filter((_, i) => i < (own < SHOWN ? SHOWN : SHOWN - 1) || i === own);
  return (
    <section className="mt-1.5 border-t border-hair pt-1.5 text-table" aria-label="Order of turns">
      <div className="section-head">
        <h3>Order of turns</h3>
        <span className="note">{turn.order.length} next</span>
      </div>
      <ol className="m-0 list-none p-0">
        {shown.map(({ unit, round }, i) => {
          const { name, kind } = replay.units[unit];
          const head = heads.get(kind);
          const begins = i === 0 || shown[i - 1].round !== round;
          return (
            <li key={unit} className={begins ? 'border-t border-hair' : ''}>
              <button
                type="button"
                aria-current={unit === selected}
                className="flex w-full items-center gap-1.5 py-[1px] text-left hover:bg-well aria-[current=true]:font-semibold"
                onClick={() => onSelect(unit)}
              >
                <span className="w-[52px] text-label text-ink-3">{begins ? `round ${round}` : ''}</span>
                {head && <Glyph unit={head} size={14} />}
                <span className="min-w-0 flex-1 truncate" title={name}>
                  {name}
                </span>
                {unit === selected && <span className="text-label text-ink-3">its next</span>}
              </button>
            </li>
          );
        })}
      </ol>
      {shown.length < turn.order.length && <p className="text-label text-ink-3">and {turn.order.length - shown.length} more</p>}
    </section>
  );
}
