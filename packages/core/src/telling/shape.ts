/** Pictures as plain shapes: the page draws them as elements, a report writes them as text. Both draw the same. */

export interface Shape {
  tag: 'path' | 'rect' | 'circle' | 'text';
  /** By SVG's own names; colours are the tokens' (`var(--ink)`). */
  attrs: Readonly<Record<string, string | number>>;
  text?: string;
}

const present = (attrs: Record<string, string | number | undefined>): Shape['attrs'] =>
  Object.fromEntries(Object.entries(attrs).filter((entry): entry is [string, string | number] => entry[1] !== undefined));

export const path = (d: string, attrs: Record<string, string | number | undefined> = {}): Shape => ({
  tag: 'path',
  attrs: present({ d, fill: 'none', ...attrs }),
});

export const rect = (
  x: number,
  y: number,
  width: number,
  height: number,
  attrs: Record<string, string | number | undefined> = {},
): Shape => ({
  tag: 'rect',
  attrs: present({ x, y, width: Math.max(0, width), height: Math.max(0, height), ...attrs }),
});

export const circle = (cx: number, cy: number, r: number, attrs: Record<string, string | number | undefined> = {}): Shape => ({
  tag: 'circle',
  attrs: present({ cx, cy, r, ...attrs }),
});

export const text = (x: number, y: number, words: string, attrs: Record<string, string | number | undefined> = {}): Shape => ({
  tag: 'text',
  attrs: present({ x, y, ...attrs }),
  text: words,
});

/** Written out at another place. */
export function svgAt(x: number, y: number, shapes: readonly Shape[]): string {
  return `<g transform="translate(${x} ${y})">${svgOf(shapes)}</g>`;
}

/** Written out. */
export function svgOf(shapes: readonly Shape[]): string {
  return shapes
    .map(({ tag, attrs, text: words }) => {
      const list = Object.entries(attrs)
        .map(([name, value]) => ` ${name}="${escaped(typeof value === 'number' ? String(Number(value.toFixed(2))) : value)}"`)
        .join('');
      return words === undefined ? `<${tag}${list}/>` : `<${tag}${list}>${escaped(words)}</${tag}>`;
    })
    .join('');
}

// What no XML may hold: control characters but tab and line ends, halves of a pair, and two that are no characters.
const FORBIDDEN =
  // eslint-disable-next-line no-control-regex
  /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

/** Text that may stand in HTML and in SVG, in an element or an attribute, whatever is in it. */
export function escaped(words: string): string {
  return words
    .replace(FORBIDDEN, '\uFFFD')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');
}
