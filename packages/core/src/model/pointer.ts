/**
 * JSON Pointers (RFC 6901) into a document whose lists hold things with ids: a step through such a list is the item's
 * id, so that a pointer keeps its meaning when items are added or moved. A list without ids is stepped by index.
 */

export type Json = unknown;
type Dictionary = Record<string, Json>;

/** Steps of a pointer, unescaped. @throws Error when the text is not a pointer */
export function pointerSteps(pointer: string): string[] {
  if (pointer === '') return [];
  if (!pointer.startsWith('/')) throw new Error(`"${pointer}" is not a JSON Pointer: it must start with /`);
  return pointer
    .slice(1)
    .split('/')
    .map((step) => step.replaceAll('~1', '/').replaceAll('~0', '~'));
}

/** A pointer from steps, escaped. */
export function pointerOf(...steps: (string | number)[]): string {
  return steps.map((step) => '/' + String(step).replaceAll('~', '~0').replaceAll('/', '~1')).join('');
}

/** Where a step leads inside a list: by id where the items have ids, else by index; −1 when nowhere. */
export function indexInList(list: Json[], step: string): number {
  const byId = list.findIndex((item) => isDictionary(item) && item.id === step);
  if (byId >= 0) return byId;
  if (list.some((item) => isDictionary(item) && 'id' in item)) return -1;
  const index = /^(0|[1-9]\d*)$/.test(step) ? Number(step) : -1;
  return index < list.length ? index : -1;
}

/** One step into a value; undefined when it leads nowhere. */
export function stepInto(value: Json, step: string): Json {
  if (Array.isArray(value)) return value[indexInList(value, step)];
  return isDictionary(value) && Object.hasOwn(value, step) ? value[step] : undefined;
}

/** The value a pointer leads to; undefined when it leads nowhere. */
export function valueAt(root: Json, pointer: string): Json {
  let value = root;
  for (const step of pointerSteps(pointer)) value = stepInto(value, step);
  return value;
}

/** Every place a pointer leads to, with `*` standing for each item of a list: the concrete steps of each. */
export function placesAt(root: Json, steps: readonly string[]): string[][] {
  let places: { at: string[]; value: Json }[] = [{ at: [], value: root }];
  for (const step of steps) {
    places = places.flatMap(({ at, value }) => {
      if (step === '*' && Array.isArray(value)) {
        return value.map((item, index) => ({
          at: [...at, isDictionary(item) && typeof item.id === 'string' ? item.id : String(index)],
          value: item,
        }));
      }
      const next = stepInto(value, step);
      return next === undefined ? [] : [{ at: [...at, step], value: next }];
    });
  }
  return places.map(({ at }) => at);
}

export function isDictionary(value: Json): value is Dictionary {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
