/** Things of an arena as an editor moves them about. Pure; metres and degrees. */
import type { Arena, Corner } from '@insidia/core';

export const KINDS = ['walls', 'ground', 'zones', 'points', 'spawnPoints'] as const;
export type Kind = (typeof KINDS)[number];

/** m: to which places snap; none with Alt. */
export const SNAP = 0.5;
export const WORDS: Record<Kind, string> = { walls: 'wall', ground: 'ground', zones: 'zone', points: 'point', spawnPoints: 'spawn point' };

export interface Ref {
  kind: Kind | 'partyStart';
  id: string;
}

type Shape = { id: string; name: string; corners: Corner[] };
type Place = { id: string; name: string; x: number; y: number };

export const START: Ref = { kind: 'partyStart', id: 'party-start' };

export const sameRef = (a: Ref, b: Ref) => a.kind === b.kind && a.id === b.id;

/** The thing a reference names within an arena; undefined where it is gone. */
export function itemOf(arena: Arena, { kind, id }: Ref): Shape | Place | undefined {
  if (kind === 'partyStart') return { id, name: 'Party start', ...arena.partyStart };
  return (arena[kind] as (Shape | Place)[]).find((item) => item.id === id);
}

/** Its corners, or the one place it is at. */
export function cornersOf(arena: Arena, ref: Ref): Corner[] {
  const item = itemOf(arena, ref);
  if (!item) return [];
  return 'corners' in item ? item.corners : [{ x: item.x, y: item.y }];
}

export function middle(corners: readonly Corner[]): Corner {
  const n = Math.max(1, corners.length);
  return { x: corners.reduce((sum, { x }) => sum + x, 0) / n, y: corners.reduce((sum, { y }) => sum + y, 0) / n };
}

const tidy = (value: number) => Number(value.toFixed(3));

/** Puts new corners, or a new place, into an arena. Changes the arena. */
export function place(arena: Arena, ref: Ref, corners: readonly Corner[]): void {
  const clean = corners.map(({ x, y }) => ({ x: tidy(x), y: tidy(y) }));
  if (ref.kind === 'partyStart') {
    Object.assign(arena.partyStart, clean[0]);
    return;
  }
  const item = (arena[ref.kind] as (Shape | Place)[]).find(({ id }) => id === ref.id);
  if (!item) return;
  if ('corners' in item) item.corners = clean;
  else Object.assign(item, clean[0]);
}

export const moved = (corners: readonly Corner[], dx: number, dy: number): Corner[] =>
  corners.map(({ x, y }) => ({ x: x + dx, y: y + dy }));

/** Turned counter-clockwise about their middle. */
export function turned(corners: readonly Corner[], degrees: number): Corner[] {
  const { x: cx, y: cy } = middle(corners);
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return corners.map(({ x, y }) => ({ x: cx + (x - cx) * c - (y - cy) * s, y: cy + (x - cx) * s + (y - cy) * c }));
}

/** Made wider or narrower about their middle. */
export function scaled(corners: readonly Corner[], wide: number, deep: number): Corner[] {
  const { x: cx, y: cy } = middle(corners);
  return corners.map(({ x, y }) => ({ x: cx + (x - cx) * wide, y: cy + (y - cy) * deep }));
}

/** Whether corners in order make a convex shape, none in line with its neighbours. */
export function isConvex(corners: readonly Corner[]): boolean {
  if (corners.length < 3) return false;
  const signs = corners.map((b, i) => {
    const a = corners[(i + corners.length - 1) % corners.length];
    const c = corners[(i + 1) % corners.length];
    return Math.sign(Number(((b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x)).toFixed(9)));
  });
  return signs.every((sign) => sign !== 0 && sign === signs[0]);
}

export const ALIGNS = ['left', 'middle', 'right', 'top', 'centre', 'bottom'] as const;
export type Align = (typeof ALIGNS)[number];

/** How far each of several must move so that they line up; by the bounds of all of them. */
export function alignment(all: readonly (readonly Corner[])[], how: Align): { dx: number; dy: number }[] {
  const box = (corners: readonly Corner[]) => ({
    left: Math.min(...corners.map(({ x }) => x)),
    right: Math.max(...corners.map(({ x }) => x)),
    bottom: Math.min(...corners.map(({ y }) => y)),
    top: Math.max(...corners.map(({ y }) => y)),
  });
  const whole = box(all.flat());
  return all.map((corners) => {
    const own = box(corners);
    switch (how) {
      case 'left':
        return { dx: whole.left - own.left, dy: 0 };
      case 'right':
        return { dx: whole.right - own.right, dy: 0 };
      case 'middle':
        return { dx: (whole.left + whole.right - own.left - own.right) / 2, dy: 0 };
      case 'top':
        return { dx: 0, dy: whole.top - own.top };
      case 'bottom':
        return { dx: 0, dy: whole.bottom - own.bottom };
      case 'centre':
        return { dx: 0, dy: (whole.top + whole.bottom - own.top - own.bottom) / 2 };
    }
  });
}
