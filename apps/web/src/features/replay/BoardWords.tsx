import type { ReasonLook, Replay } from '@insidia/core';
import { cellWords, groundWords } from '../../visuals/board';
import type { GroundShown } from '../../visuals/boardCanvas';
import { placedAt } from '../../visuals/replayCanvas';

interface Props {
  replay: Replay;
  look: ReasonLook | undefined;
  selected: number | undefined;
  cell: number | undefined;
  time: number;
  shown: GroundShown;
  onShown: (shown: GroundShown) => void;
}

const GROUNDS: readonly { id: GroundShown; label: string; about: string }[] = [
  { id: 'reach', label: 'reach', about: 'tinted: where it can come in its next turn; hatched: where it can strike then' },
  { id: 'harm', label: 'harm', about: 'how much is to be expected on each cell until its turn: the larger, the more' },
  { id: 'none', label: 'bare', about: 'the cells alone' },
];

/** Under the stage of a fight on a board: what is told of its cells, and what they show. */
export function BoardWords({ replay, look, selected, cell, time, shown, onShown }: Props) {
  const words = wordsOf(replay, look, selected, cell, time);
  return (
    <div className="flex items-center gap-3 px-4 pt-1">
      <p className="min-w-0 flex-1 truncate text-table text-ink-2" role="status" aria-label="Cells" title={words}>
        {words}
      </p>
      <span role="radiogroup" aria-label="Cells show" className="flex shrink-0">
        {GROUNDS.map(({ id, label, about }) => (
          <button
            key={id}
            type="button"
            role="radio"
            aria-checked={shown === id}
            className="switch"
            title={about}
            onClick={() => onShown(id)}
          >
            {label}
          </button>
        ))}
      </span>
    </div>
  );
}

/** Of the cell that is pointed at, else of the unit’s next turn. */
function wordsOf(
  replay: Replay,
  look: ReasonLook | undefined,
  selected: number | undefined,
  cell: number | undefined,
  time: number,
): string {
  const { units } = replay;
  const board = replay.board!;
  const ground = look?.turn?.ground;
  const name = selected === undefined ? '' : units[selected].name;
  if (cell === undefined)
    return ground ? groundWords(board, name, ground) : 'Pause, and choose a unit that stands there, to see what its next turn looks like.';
  const [x, y] = [board.x[cell], board.y[cell]];
  const there = placedAt(replay, time).find((one) => Math.max(Math.abs(one.x - x), Math.abs(one.y - y)) < one.radius + 1e-6);
  return cellWords(board, cell, name, ground, there && units[there.unit].name);
}
