/**
 * Only its own page may speak to the server. A page of somebody else's that has its own name point here (DNS rebinding)
 * sends that name as Host; one that sends a request across sends its own Origin.
 */
import type { NextFunction, Request, Response } from 'express';
import { networkInterfaces } from 'node:os';
import { foreignOrigin, unknownHost } from '../problem';
import type { Settings } from '../settings';

const LOOPBACK = ['localhost', '127.0.0.1', '::1'];
const EVERYWHERE = ['0.0.0.0', '::'];
const CHANGES_NOTHING = ['GET', 'HEAD', 'OPTIONS'];

export function isLoopback(host: string): boolean {
  return LOOPBACK.includes(host.toLowerCase()) || /^127(\.\d{1,3}){3}$/.test(host);
}

/** Name and port of what stands in a Host header or an origin; undefined where it is neither. */
function authority(text: string | undefined): { name: string; whole: string } | undefined {
  if (!text || !/^(\[[\da-f:.]+\]|[\w.-]+)(:\d{1,5})?$/i.test(text)) return undefined;
  const [, host] = /^(.*?)(?::\d+)?$/.exec(text)!;
  return { name: host.replace(/^\[|\]$/g, '').toLowerCase(), whole: text.toLowerCase() };
}

/** The names that requests may be addressed to, in lower case. */
function namesOf({ host, hosts }: Pick<Settings, 'host' | 'hosts'>): Set<string> {
  const own = EVERYWHERE.includes(host)
    ? [...LOOPBACK, ...Object.values(networkInterfaces()).flatMap((all) => (all ?? []).map(({ address }) => address))]
    : isLoopback(host)
      ? [...LOOPBACK, host]
      : [host];
  return new Set([...own, ...hosts.map((one) => authority(one)?.name ?? one)].map((name) => name.toLowerCase()));
}

/** Refuses what is addressed to another name, and what another page wants changed. */
export function onlyItsOwn(settings: Pick<Settings, 'host' | 'hosts'>) {
  const names = namesOf(settings);
  return ({ method, headers }: Request, _response: Response, next: NextFunction): void => {
    const asked = authority(headers.host);
    if (!asked || !names.has(asked.name)) return next(unknownHost(headers.host));
    if (CHANGES_NOTHING.includes(method)) return next();
    const { origin } = headers;
    const site = headers['sec-fetch-site'];
    if (origin === undefined)
      return next(site === undefined || site === 'same-origin' || site === 'none' ? undefined : foreignOrigin(String(site)));
    const from = authority(/^https?:\/\/(.+)$/i.exec(origin)?.[1]);
    // Behind a proxy that puts its own name for Host, the name that people use is one of those told.
    const own = from && (from.whole === asked.whole || settings.hosts.some((one) => one.toLowerCase() === from.whole));
    next(own ? undefined : foreignOrigin(origin));
  };
}
