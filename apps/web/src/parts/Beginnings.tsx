import { RadioGroup } from 'radix-ui';
import { type ReactNode, useId } from 'react';

export interface BeginningOffer {
  id: string;
  called: string;
  about: string;
  /** A small picture of what it is. */
  picture?: ReactNode;
  /** What it comes to, in figures. */
  figures?: string;
}

interface Props {
  /** What the figures and pictures show, by how wide each is, px. */
  heads?: readonly (readonly [words: string, width: number])[];
  offers: readonly BeginningOffer[];
  value: string;
  onChoose: (id: string) => void;
}

/** Over the figures of a beginning: what it comes to by the numbers alone. */
export const ON_PAPER = 'on paper';

/** What a new thing begins as: one of some patterns, each a sentence and a small picture. Arrow keys go through them. */
export function Beginnings({ heads = [], offers, value, onChoose }: Props) {
  const base = useId();
  return (
    <div>
      <div className="flex text-label text-ink-3">
        <span className="flex-1">Begins as</span>
        {heads.map(([words, wide]) => (
          <span key={words} style={{ width: wide }} className={words === ON_PAPER ? 'pr-3 text-right' : ''}>
            {words}
          </span>
        ))}
      </div>
      <RadioGroup.Root aria-label="Begins as" value={value} onValueChange={onChoose} className="border-t">
        {offers.map(({ id, called, about, picture, figures }) => (
          <RadioGroup.Item
            key={id}
            value={id}
            aria-label={called}
            aria-describedby={`${base}${id}`}
            // A radio takes Enter for itself; in a form it is meant for the form.
            onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.form?.requestSubmit()}
            className="flex w-full items-center gap-3 border-b border-hair px-2 py-1 text-left -outline-offset-2 hover:bg-well data-[state=checked]:bg-well data-[state=checked]:shadow-[inset_3px_0_0_var(--ink)]"
          >
            <span className="min-w-0 flex-1">
              <span className={`block leading-4 ${value === id ? 'font-semibold' : ''}`}>{called}</span>
              <span id={`${base}${id}`} className="block text-label leading-[13px] text-ink-3">
                {about}
              </span>
            </span>
            {figures && <span className="w-[92px] shrink-0 text-right text-label leading-[13px] text-ink-2">{figures}</span>}
            {picture && <span className="shrink-0">{picture}</span>}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
    </div>
  );
}
