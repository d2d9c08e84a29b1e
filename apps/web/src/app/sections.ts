/** Where each section of a project was left, so that it is found again as it was. Pure. */
import { type Project, takenIds } from '@insidia/core';

export interface Place {
  pathname: string;
  search: string;
}

/** What holds in every section: how everything is looked at. Everything else belongs to the section that asked for it. */
const SHARED = ['tier', 'skill', 'edit', 'turned'] as const;

/** Enemies, party, arenas …: the first step of an address within its project. */
export function sectionOf(pathname: string): string | undefined {
  return /^\/projects\/[^/]+\/([^/]+)/.exec(pathname)?.[1];
}

/** Of a query what holds in every section. */
export function sharedSearch(search: string): string {
  const all = new URLSearchParams(search);
  const kept = new URLSearchParams();
  for (const name of SHARED) if (all.has(name)) kept.set(name, all.get(name)!);
  return kept.toString();
}

/**
 * The address of a section: as it was left, seen through the lens of now; its beginning where it was not opened yet, or what
 * was chosen there is no more.
 */
export function addressOf(project: Project, section: string, left: Place | undefined, search: string): Place {
  const base = `/projects/${project.id}/${section}`;
  const own = left !== undefined && (left.pathname === base || left.pathname.startsWith(`${base}/`));
  const chosen = own ? left.pathname.slice(base.length + 1).split('/')[0] || undefined : undefined;
  const there = chosen === undefined || FIXED.includes(chosen) || takenIds(project).includes(decodeURIComponent(chosen));
  if (!own || !there) return { pathname: base, search: sharedSearch(search) };
  const query = new URLSearchParams(left.search);
  for (const name of SHARED) query.delete(name);
  new URLSearchParams(sharedSearch(search)).forEach((value, name) => query.set(name, value));
  return { pathname: left.pathname, search: query.toString() };
}

/** Steps after a section that are no ids. */
const FIXED = ['duel', 'tiers', 'skills', 'styles', 'traits', 'enemies', 'party'];
