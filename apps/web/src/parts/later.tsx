/** Parts of the page that are fetched apart from the first view. */
import { type ComponentType, Suspense, lazy, useLayoutEffect, useState } from 'react';

/** Not every browser tells when it is idle. */
export const whenIdle = (run: () => void): void => void (globalThis.requestIdleCallback ?? ((act) => setTimeout(act, 500)))(run);

const waiting: (() => Promise<unknown>)[] = [];

/**
 * A part that is fetched when there is time, or when it is opened before that. Once it is here it shows at once: a lazy
 * component would give way to its fallback first, and that stands for a third of a second at least.
 */
export function later<Props extends object = object>(load: () => Promise<ComponentType<Props>>): ComponentType<Props> {
  let here: ComponentType<Props> | undefined;
  const fetched = async () => ({ default: (here ??= await load()) });
  const Later = lazy(fetched) as unknown as ComponentType<Props>;
  waiting.push(fetched);
  return function Part(props: Props) {
    // As it began: what changes its kind while it is shown would lose what it holds.
    const [Shown] = useState(() => here ?? Later);
    return <Shown {...props} />;
  };
}

/** A sheet that was opened before there was anything in it has kept the focus: now its first field gets it, as if it had been there. */
function TakesFocus() {
  useLayoutEffect(() => {
    const sheet = document.activeElement;
    if (!sheet?.matches('.sheet')) return;
    const first = sheet.querySelector<HTMLElement>('input, textarea, button:not(:disabled), [tabindex="0"]');
    first?.focus();
    if (first instanceof HTMLInputElement) first.select();
  }, []);
  return null;
}

/**
 * The same for what stands within a page: nothing around it gives way.
 * @param height px that are kept for it until it is here: a sheet is put where it has room for them
 */
export function laterWithin<Props extends object = object>(
  load: () => Promise<ComponentType<Props>>,
  height?: number,
): ComponentType<Props> {
  const Part = later(load);
  return function Within(props: Props) {
    return (
      <Suspense fallback={height && <div style={{ height }} />}>
        <Part {...props} />
        <TakesFocus />
      </Suspense>
    );
  };
}

/** Fetches what is not here yet, one after another, each when the browser has nothing else to do. */
export function fetchLater(): void {
  const next = waiting.shift();
  // One that can't be fetched now is asked for again when it is opened, and says so there.
  if (next)
    whenIdle(
      () =>
        void next()
          .catch(() => undefined)
          .then(fetchLater),
    );
}
