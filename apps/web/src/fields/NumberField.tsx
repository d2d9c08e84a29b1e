import { drag } from './drag';
import { type Chain, type QuantityInfo, chainSentence, shown } from '@insidia/core';
import { type KeyboardEvent, type PointerEvent, useId, useLayoutEffect, useRef, useState } from 'react';
import { WarnMark } from '../visuals/WarnMark';
import { evaluate, limitBroken, stepOf, tidy } from './number';

export interface NumberFieldProps {
  info: QuantityInfo;
  /** Shown instead of the field's own label. */
  label?: string;
  /** As it is written; undefined: not set. */
  base: number | undefined;
  /** What the lens makes of it, where some tweak touches it. */
  chain?: Chain;
  /** Editing through the lens's tier: what is typed is the value there. */
  throughTier?: string;
  width?: number;
  compact?: boolean;
  /** The label is read out but not shown. */
  bare?: boolean;
  /** The line beneath takes room only when there is something to say. */
  tight?: boolean;
  onCommit: (value: number, mark?: string) => void;
  /** Called when an optional number is emptied; absent: an emptied field keeps its number. */
  onClear?: () => void;
  /** What is wrong here by inspection. */
  warning?: string;
  /** Back to what it was before the edit of it: shown when there is something to reset. */
  onReset?: () => void;
  /** Opens Tune with this number. */
  onTurn?: () => void;
}

/** Characters of base and effective value that fit side by side; beyond, the base stands in the tooltip only. */
const LONGEST_CHAIN = 10;

/** A number: typed, stepped by arrow keys, dragged by its label, or written as an expression. */
export function NumberField({
  info,
  label,
  base,
  chain,
  throughTier,
  width,
  compact,
  bare,
  tight,
  onCommit,
  onClear,
  warning,
  onReset,
  onTurn,
}: NumberFieldProps) {
  const id = useId();
  const [text, setText] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | undefined>();
  const cancelled = useRef(false);
  const value = throughTier && chain ? chain.value : base;
  const editing = text !== null;
  // A drag outlives the render it began in: it must write to the document as it is by then.
  const newest = useRef({ value, onCommit });
  useLayoutEffect(() => {
    newest.current = { value, onCommit };
  });
  const input = useRef<HTMLInputElement>(null);
  // Whoever starts to type replaces the number.
  useLayoutEffect(() => {
    if (editing) input.current?.select();
  }, [editing]);

  const commit = (raw: string) => {
    setText(null);
    // Focus and blur in one go: what stands there is what was read, rounded, and nobody's word.
    if (text === null) return void (cancelled.current = false);
    const typed = evaluate(raw);
    if (cancelled.current || raw.trim() === '') {
      if (!cancelled.current && onClear && value !== undefined) onClear();
      cancelled.current = false;
      return setWrong(undefined);
    }
    const broken = typed === undefined ? 'not a number' : limitBroken(typed, info);
    setWrong(broken);
    if (!broken && typed !== value) onCommit(typed as number);
  };
  const nudge = (steps: number, from: number, mark: string) => {
    const next = Math.min(Math.max(tidy(Math.round((from + steps * stepOf(info)) * 1e6) / 1e6), info.min), info.max);
    setWrong(undefined);
    if (next !== newest.current.value) newest.current.onCommit(info.whole ? Math.round(next) : next, mark);
    return next;
  };
  const keyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    const typed = evaluate(event.currentTarget.value);
    if (onTurn && event.altKey && event.key.toLowerCase() === 't') {
      event.preventDefault();
      event.currentTarget.blur();
      onTurn();
    } else if (event.key === 'Enter') event.currentTarget.blur();
    else if (event.key === 'Escape') {
      cancelled.current = true;
      event.currentTarget.blur();
    } else if ((event.key === 'ArrowUp' || event.key === 'ArrowDown') && (typed !== undefined || value !== undefined)) {
      event.preventDefault();
      const size = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
      const next = nudge(
        (event.key === 'ArrowUp' ? 1 : -1) * (info.whole ? Math.max(1, size) : size),
        typed ?? (value as number),
        `keys ${id}`,
      );
      setText(String(next));
    }
  };
  const dragLabel = (event: PointerEvent<HTMLLabelElement>) => {
    if (event.button !== 0 || value === undefined) return;
    const start = event.clientX;
    const mark = `drag ${id} ${event.timeStamp}`;
    let moved = false;
    const move = (e: globalThis.PointerEvent) => {
      const steps = Math.trunc((e.clientX - start) / 4) * (e.shiftKey ? 10 : e.altKey ? 0.1 : 1);
      if (steps !== 0) moved = true;
      if (moved) nudge(steps, value, mark);
    };
    drag(event, move, (e) => moved && e.preventDefault());
  };

  const through = chain && chain.value !== chain.base;
  const last = chain?.steps[chain.steps.length - 1];
  const sentence = chain && chainSentence(chain, (x) => shown(x));
  const name = label ?? info.label;
  return (
    <div
      className="min-w-0"
      style={{ width }}
      title={[warning, info.about, sentence, onTurn && 'Alt T: turn it in Tune'].filter(Boolean).join('\n')}
    >
      {!bare && (
        <label htmlFor={id} onPointerDown={dragLabel} className="edge block truncate text-label text-ink-3" style={{ touchAction: 'none' }}>
          {name}
        </label>
      )}
      <div className={`field-box ${through ? 'through' : ''} ${wrong ? 'wrong' : warning ? 'warned' : ''}`}>
        {through && !editing && shown(chain.base).length + shown(chain.value).length <= LONGEST_CHAIN && (
          <span className="pr-0.5 text-label text-ink-3" aria-hidden>
            {shown(chain.base)} →
          </span>
        )}
        <input
          id={id}
          ref={input}
          role="spinbutton"
          aria-label={bare ? name : undefined}
          inputMode="decimal"
          aria-valuenow={value}
          aria-valuemin={info.min}
          aria-valuemax={info.max}
          aria-valuetext={
            value === undefined ? 'not set' : `${shown(through ? chain.value : value)} ${info.unit}${sentence ? ', ' + sentence : ''}`
          }
          aria-invalid={wrong ? true : undefined}
          className={through && !editing ? '-mr-2 font-semibold' : ''}
          value={text ?? (value === undefined ? '' : shown(through ? chain.value : value))}
          placeholder="—"
          onFocus={() => setText(value === undefined ? '' : String(value))}
          onChange={(event) => setText(event.target.value)}
          onBlur={(event) => commit(event.target.value)}
          onKeyDown={keyDown}
          spellCheck={false}
          autoComplete="off"
        />
        {info.unit && <span className="pl-1 text-label text-ink-3">{info.unit}</span>}
        {warning && <WarnMark label={warning} />}
      </div>
      {!compact && (!tight || wrong || onReset || through) && (
        <div className="h-[14px] truncate text-label text-ink-3">
          {wrong ? (
            <span className="text-warn" role="alert">
              {wrong}
            </span>
          ) : (
            <>
              {through && last && `${last.tweak.op} ${shown(Number(last.tweak.value))} ${onReset ? '' : last.name}`}
              {onReset && (
                <button
                  type="button"
                  className="underline decoration-rule"
                  onClick={onReset}
                  aria-label={`Reset ${name}`}
                  title={throughTier ? 'take this tier’s own value away again' : 'as its base has it'}
                >
                  reset
                </button>
              )}
            </>
          )}
        </div>
      )}
    </div>
  );
}
