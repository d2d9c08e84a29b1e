let theme: string | undefined;
const known = new Map<string, string>();

/** A token of the theme, as a colour a canvas understands. A picture asks for hundreds, and each would have the page lay itself out. */
export function token(name: string): string {
  const now = document.documentElement.dataset.theme;
  if (now !== theme) known.clear();
  theme = now;
  // What is empty is asked again: the sheet may not have been there.
  const kept = known.get(name);
  if (kept) return kept;
  const read = getComputedStyle(document.documentElement).getPropertyValue(name).trim();
  known.set(name, read);
  return read;
}
