/** What an editor does to an arena, one function each. Those that change it take a copy that may be changed. Metres, degrees. */
import { type Arena, type Corner, idFor, nameFor } from '@insidia/core';
import { cornersOf, isConvex, type Kind, middle, moved, place, type Ref, sameRef, SNAP, turned, WORDS } from './shapes';

type Named = { id: string; name: string };

/** To the nearest place of the grid; a fine hand is left alone. */
export const snap = (value: number, fine = false) => (fine ? value : Math.round(value / SNAP) * SNAP);

const box = (x: number, y: number, w: number, d: number): Corner[] => [
  { x: x - w / 2, y: y - d / 2 },
  { x: x + w / 2, y: y - d / 2 },
  { x: x + w / 2, y: y + d / 2 },
  { x: x - w / 2, y: y + d / 2 },
];

const namesOf = (list: readonly Named[]) => list.map(({ name }) => name);
const idsOf = (list: readonly Named[]) => list.map(({ id }) => id);

/** What is added: of each kind one, and a point at which a thing stands that can be destroyed. */
export type Added = Kind | 'standing';
export const ADDED_WORDS: Record<Added, string> = { ...WORDS, standing: 'thing' };

/** Puts a new thing about a place. Changes the arena. */
export function addThing(arena: Arena, added: Added, about: Corner): Ref {
  const kind = added === 'standing' ? 'points' : added;
  const list = arena[kind] as Named[];
  const word = ADDED_WORDS[added];
  const name = nameFor(word.charAt(0).toUpperCase() + word.slice(1), namesOf(list));
  const id = idFor(name, idsOf(list));
  const [x, y] = [snap(about.x), snap(about.y)];
  const made = {
    walls: { id, name, height: 3, corners: box(x, y, 4, 1) },
    ground: { id, name, kind: 'mud', corners: box(x, y, 5, 4) },
    zones: { id, name, by: 'party', flag: idFor(name, []), corners: box(x, y, 5, 4) },
    points: { id, name, x, y, radius: 0.5, height: 1, ...(added === 'standing' && { health: 100 }) },
    spawnPoints: { id, name, x, y, scatter: 1, facing: 180 },
  }[kind];
  (arena[kind] as unknown[]).push(made);
  return { kind, id };
}

/** Where the party starts can't be taken away. */
export const removable = (refs: readonly Ref[]) => refs.filter(({ kind }) => kind !== 'partyStart');

/** Changes the arena. */
export function removeThings(arena: Arena, refs: readonly Ref[]): void {
  for (const { kind, id } of refs)
    if (kind !== 'partyStart') (arena[kind] as Named[]) = (arena[kind] as Named[]).filter((item) => item.id !== id) as never;
}

/** A copy of each a metre beside it. Changes the arena. @returns the copies */
export function doubleThings(arena: Arena, refs: readonly Ref[]): Ref[] {
  return removable(refs).map(({ kind, id }) => {
    const list = arena[kind as Kind] as Named[];
    const item = structuredClone(list.find((one) => one.id === id)!);
    item.name = nameFor(item.name, namesOf(list));
    item.id = idFor(item.name, idsOf(list));
    list.push(item);
    const copy: Ref = { kind, id: item.id };
    place(arena, copy, moved(cornersOf(arena, copy), 1, -1));
    return copy;
  });
}

/** What is held after one thing was pressed: all that was, if it was among them; with Shift it joins or leaves. */
export function holding(chosen: readonly Ref[], pressed: Ref, joins: boolean): Ref[] {
  const already = chosen.some((one) => sameRef(one, pressed));
  if (joins) return already ? chosen.filter((one) => !sameRef(one, pressed)) : [...chosen, pressed];
  return already ? [...chosen] : [pressed];
}

/** How far things go when the first of them snaps and the others keep their places beside it. */
export function way(first: readonly Corner[], by: Corner, fine: boolean): Corner {
  const { x, y } = middle(first);
  return { x: snap(x + by.x, fine) - x, y: snap(y + by.y, fine) - y };
}

/** With one corner somewhere else; undefined where the shape would no longer be convex. */
export function withCorner(corners: readonly Corner[], index: number, to: Corner, fine: boolean): Corner[] | undefined {
  const next = corners.map((corner, i) => (i === index ? { x: snap(to.x, fine), y: snap(to.y, fine) } : corner));
  return isConvex(next) ? next : undefined;
}

/** Turned as the pointer went about the middle; by fifteen degrees, or as finely as the hand. */
export function turnedWith(corners: readonly Corner[], from: Corner, to: Corner, fine: boolean): Corner[] {
  const centre = middle(corners);
  const angle = (p: Corner) => (Math.atan2(p.y - centre.y, p.x - centre.x) * 180) / Math.PI;
  const by = angle(to) - angle(from);
  return turned(corners, fine ? by : Math.round(by / 15) * 15);
}

const WAYS: Record<string, readonly [number, number]> = { ArrowRight: [1, 0], ArrowLeft: [-1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };

/** How far an arrow key moves what is chosen; undefined for any other. */
export function keyWay({ key, shiftKey, altKey }: { key: string; shiftKey: boolean; altKey: boolean }): Corner | undefined {
  const to = WAYS[key];
  const by = SNAP * (shiftKey ? 10 : altKey ? 0.1 : 1);
  return to && { x: to[0] * by, y: to[1] * by };
}

export interface Zoom {
  zoom: number;
  panX: number;
  panY: number;
}

export const WHOLE: Zoom = { zoom: 1, panX: 0, panY: 0 };

/** Nearer or farther, within bounds. */
export const zoomedBy = (old: Zoom, factor: number): Zoom => ({ ...old, zoom: Math.min(8, Math.max(0.25, old.zoom * factor)) });
