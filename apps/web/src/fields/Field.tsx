import {
  chainSentence,
  changeableAt,
  fieldAt,
  fieldLabel,
  fieldWords,
  plainFields,
  pointerSteps,
  valueAt,
  valueWords,
} from '@insidia/core';
import { Choose } from './Choose';
import { SomeOf } from './SomeOf';
import { TextField } from './TextField';
import { FieldNumber, warningAt } from './FieldNumber';
import { YesNo } from './YesNo';
import type { FieldEditor } from './editor';

interface Props {
  editor: FieldEditor;
  path: string;
  label?: string;
  width?: number;
  /** What a text or a list of words offers to choose from; of a word: those that it may be here. */
  offers?: readonly { id: string; name: string }[];
  /** For a reference that may be absent: what absent is called. */
  none?: string;
}

const WIDTHS = { number: 84, word: 132, text: 120 };
const NONE = '*';

/** One field of what is edited, whatever kind of value it holds. */
export function Field({ editor, path, label, width, offers, none }: Props) {
  const steps = pointerSteps(path);
  const field = fieldAt(editor.root, steps);
  if (!field) return null;
  const name = label ?? fieldLabel(editor.root, steps);
  const throughTier = editor.throughTier !== undefined && changeableAt(editor.root, steps) !== undefined;
  const chain = editor.wordChain(path);
  const value = throughTier && chain ? chain.value : valueAt(editor.base, path);
  const write = (next: unknown, words: string) => editor.set(path, next, words);
  const reset = editor.throughTier === undefined || throughTier ? editor.reset(path) : undefined;
  const seen = chain && chain.value !== value ? `${valueWords(editor.root, steps, chain.value)} ${chain.steps.at(-1)!.name}` : undefined;
  const warning = warningAt(editor, path);
  const dressed = (control: React.ReactNode, fixedWidth?: number) => (
    <div style={{ width: fixedWidth }} className="min-w-0" title={warning}>
      {control}
      {(reset || warning || seen) && (
        <div className="truncate text-label">
          {warning && <span className="text-warn">{warning} </span>}
          {seen && (
            <span className="text-ink-3" title={chain && chainSentence(chain, undefined, (word) => valueWords(editor.root, steps, word))}>
              = {seen}{' '}
            </span>
          )}
          {reset && (
            <button
              type="button"
              className="underline decoration-rule"
              onClick={reset}
              aria-label={`Reset ${name}`}
              title={throughTier ? 'take this tier’s own value away again' : 'as its base has it'}
            >
              reset
            </button>
          )}
        </div>
      )}
    </div>
  );
  const words = () => offers ?? fieldWords(editor.root, steps);
  switch (field.kind) {
    case 'number':
      return <FieldNumber tight editor={editor} path={path} label={label} width={width ?? WIDTHS.number} />;
    case 'word':
      return dressed(
        <Choose
          label={name}
          value={value as string}
          options={words()}
          onChoose={(word) => write(word, words().find(({ id }) => id === word)?.name ?? word)}
        />,
        width ?? WIDTHS.word,
      );
    case 'yesNo':
      return dressed(
        <div className="pt-[14px]">
          <YesNo label={name} value={value === true} onChange={(next) => write(next, next ? 'yes' : 'no')} />
        </div>,
      );
    case 'someOf':
      return dressed(
        <SomeOf
          label={name}
          options={fieldWords(editor.root, steps)}
          value={(value as string[] | undefined) ?? []}
          onChange={(next) => write(next, next.length ? next.join(', ') : 'none')}
        />,
      );
    case 'words':
      return dressed(
        <SomeOf
          label={name}
          options={offers ?? []}
          value={(value as string[] | undefined) ?? []}
          onChange={(next) => write(next, next.length ? next.join(', ') : 'none')}
        />,
      );
    case 'id':
    case 'text':
    case 'name':
      if (offers && (field.kind === 'id' || none !== undefined))
        return dressed(
          <Choose
            label={name}
            value={(value as string | undefined) ?? (none === undefined ? undefined : NONE)}
            options={[
              ...(none === undefined ? [] : [{ id: NONE, name: none }]),
              ...offers,
              ...strangers(value as string | undefined, offers),
            ]}
            onChoose={(id) => write(id === NONE ? undefined : id, offers.find((one) => one.id === id)?.name ?? none ?? '')}
          />,
          width ?? WIDTHS.word,
        );
      return dressed(
        <TextField
          label={name}
          value={(value as string | undefined) ?? ''}
          limit={field.kind === 'id' ? 60 : 'limit' in field ? field.limit : undefined}
          offers={offers?.map(({ id }) => id)}
          placeholder={none}
          onCommit={(text) => write(text.trim() === '' && none !== undefined ? undefined : text.trim(), text.trim() || 'none')}
        />,
        width ?? WIDTHS.text,
      );
    default:
      return null;
  }
}

/** What it speaks of that is not there is named all the same. */
const strangers = (value: string | undefined, offers: readonly { id: string }[]) =>
  value === undefined || offers.some(({ id }) => id === value) ? [] : [{ id: value, name: `${value}, not there` }];

/** Several fields of one group, in a row that wraps: those named, else all that its class has for a form. */
export function Fields({
  editor,
  at,
  of = plainFields(editor.root, pointerSteps(at), valueAt(editor.base, at) as object | undefined),
  labels = {},
}: {
  editor: FieldEditor;
  at: string;
  of?: readonly string[];
  labels?: Record<string, string>;
}) {
  return (
    <>
      {of.map((field) => (
        <Field key={field} editor={editor} path={`${at}/${field}`} label={labels[field]} />
      ))}
    </>
  );
}
