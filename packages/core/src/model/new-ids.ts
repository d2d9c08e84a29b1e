/** Ids and names for new things. */

/** An id made of a name, different from those taken: "Quill fan" → quill-fan, quill-fan-2. */
export function idFor(name: string, taken: Iterable<string>): string {
  const used = new Set(taken);
  const plain =
    name
      .normalize('NFD')
      .replace(/\p{M}+/gu, '')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 56)
      .replace(/-+$/, '') || 'item';
  if (!used.has(plain)) return plain;
  for (let i = 2; ; i++) if (!used.has(`${plain}-${i}`)) return `${plain}-${i}`;
}

/** Characters of a name, of which a number behind it may take some. */
const NAME = { most: 80, number: 5 };

/** A name that nobody else has: "Quill", "Quill 2"; of one as long as names may be the end gives way to the number. */
export function nameFor(name: string, taken: Iterable<string>): string {
  const used = new Set(taken);
  if (!used.has(name)) return name;
  const stem = name
    .replace(/ \d+$/, '')
    .slice(0, NAME.most - NAME.number)
    .trimEnd();
  for (let i = 2; ; i++) if (!used.has(`${stem} ${i}`)) return `${stem} ${i}`;
}
