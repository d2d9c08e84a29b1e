/**
 * What a body may be, looked at before it is read: a text of a few megabytes can hold more levels, keys or items than
 * anything that looks at them afterwards is made for.
 */
import { badRequest, echo, notJson, tooIntricate } from './problem';

export const BODY_LIMITS = {
  /** Levels of lists and objects within one another. */
  depth: 64,
  /** Fields of one object, items of one list. */
  fields: 2_000,
  items: 20_000,
  /** Bytes of one text. */
  text: 100_000,
} as const;

const [QUOTE, BACKSLASH, COMMA, OPEN_LIST, CLOSE_LIST, OPEN_OBJECT, CLOSE_OBJECT] = [...'"\\,[]{}'].map((sign) => sign.charCodeAt(0));

/** @throws ProblemError that says which limit is passed, at which byte */
export function checkBody(body: Buffer): void {
  const counts: number[] = [];
  const lists: boolean[] = [];
  for (let at = 0; at < body.length; at++) {
    const sign = body[at];
    if (sign === QUOTE) {
      const from = at;
      for (at++; at < body.length && body[at] !== QUOTE; at++) if (body[at] === BACKSLASH) at++;
      if (at - from > BODY_LIMITS.text)
        throw tooIntricate(`a text may be ${BODY_LIMITS.text} bytes long: the one at byte ${from} is longer`);
    } else if (sign === OPEN_LIST || sign === OPEN_OBJECT) {
      counts.push(1);
      lists.push(sign === OPEN_LIST);
      if (counts.length > BODY_LIMITS.depth)
        throw tooIntricate(`lists and objects may lie ${BODY_LIMITS.depth} deep in one another: at byte ${at} they lie deeper`);
    } else if (sign === CLOSE_LIST || sign === CLOSE_OBJECT) {
      counts.pop();
      lists.pop();
    } else if (sign === COMMA && counts.length) {
      const inner = counts.length - 1;
      const most = lists[inner] ? BODY_LIMITS.items : BODY_LIMITS.fields;
      if (++counts[inner] > most)
        throw tooIntricate(
          `${lists[inner] ? 'a list may have' : 'an object may have'} ${most} ${lists[inner] ? 'items' : 'fields'}: at byte ${at} it has more`,
        );
    }
  }
}

// eslint-disable-next-line no-control-regex
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/;

/** Texts and keys without control characters, which no database and no file takes; line breaks and tabs are none. @throws ProblemError */
export function withoutControls(value: unknown): void {
  if (typeof value === 'string') {
    const at = CONTROL.exec(value);
    if (at) throw notJson(`a text has the control character ${code(at[0])} in it`);
    if (/\p{Surrogate}/u.test(value)) throw notJson('a text has half a character in it (a lone surrogate)');
  } else if (Array.isArray(value)) for (const item of value) withoutControls(item);
  else if (typeof value === 'object' && value !== null)
    for (const [key, item] of Object.entries(value)) {
      withoutControls(key);
      withoutControls(item);
    }
}

/** What an address may hold: no control characters, and each question once. */
export function checkAddress(path: string, query: Readonly<Record<string, unknown>>): void {
  let plain: string;
  try {
    plain = decodeURIComponent(path);
  } catch {
    throw badRequest('the address has a percent sign in it that is followed by no sign of a text');
  }
  if (CONTROL.test(plain) || /\p{Surrogate}/u.test(plain)) throw badRequest('the address has a control character in it');
  for (const [name, value] of Object.entries(query)) {
    if (Array.isArray(value) && name !== SEVERAL) throw badRequest(`${name} may be given once: it is given ${value.length} times`);
    for (const text of [name, value].flat())
      if (typeof text !== 'string' || CONTROL.test(text) || text.length > LONGEST_QUESTION)
        throw badRequest(`${echo(name)} must be text of at most ${LONGEST_QUESTION} characters without control characters`);
  }
}

/** What may be asked for several times: measures of a report. */
const SEVERAL = 'measure';
const LONGEST_QUESTION = 2_000;

const code = (sign: string) => `U+${sign.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}`;
