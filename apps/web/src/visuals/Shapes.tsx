import type { Shape } from '@insidia/core';
import { createElement } from 'react';

/** React's own names of the SVG attributes that have a hyphen. */
const camel = (name: string) => (name === 'class' ? 'className' : name.replace(/-([a-z])/g, (_, letter: string) => letter.toUpperCase()));

/** A picture of the core's, as elements. */
export function Shapes({ shapes }: { shapes: readonly Shape[] }) {
  return shapes.map(({ tag, attrs, text }, i) =>
    createElement(tag, { key: i, ...Object.fromEntries(Object.entries(attrs).map(([name, value]) => [camel(name), value])) }, text),
  );
}
