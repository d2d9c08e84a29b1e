/** insidia effective: a unit's numbers as a lens makes them, each with its chain. */
import { LIMITS, type Project, chainSentence, effectiveValues, hasUnit } from '@insidia/core/running';
import { EXIT, Exit } from './exit';

export interface EffectiveOptions {
  unit: string;
  tier?: string;
  skill?: string;
  style?: string;
  /** Whose tweaks by party size count. */
  encounter?: string;
  players?: number;
  changed?: boolean;
  format: 'text' | 'json';
}

export function effective(project: Project, options: EffectiveOptions): string {
  const { unit, encounter, players, changed, format } = options;
  if (!hasUnit(project, unit)) throw new Exit(EXIT.usage, `there is no unit "${unit}" in ${project.name}`);
  known(project.tiers, 'tier', options.tier);
  known(project.skills, 'skill', options.skill);
  known(project.styles, 'style', options.style);
  known(project.encounters, 'encounter', encounter);
  if (players !== undefined && encounter === undefined)
    throw new Exit(EXIT.usage, '--players counts in an encounter: give it with --encounter, or leave it out');
  if (players !== undefined && !(Number.isInteger(players) && players >= 1 && players <= LIMITS.party))
    throw new Exit(EXIT.usage, `players must be a whole number from 1 to ${LIMITS.party}: it is ${players}`);
  const lens = { tier: options.tier, skill: options.skill, style: options.style, players };
  const values = effectiveValues(project, unit, lens, encounter).filter(({ chain }) => !changed || chain);
  if (format === 'json') return JSON.stringify({ unit, ...lens, encounter, values }, null, 2) + '\n';
  const widths = [0, 1].map((column) => Math.max(0, ...values.map((one) => cells(one)[column].length)));
  const lines = values.map((one) => {
    const [path, value, chain] = cells(one);
    return `${path.padEnd(widths[0])}  ${value.padStart(widths[1])}${chain && `  ${chain}`}`;
  });
  return [...lines, ''].join('\n');
}

const shown = (value: number | string | boolean) => (typeof value === 'number' ? String(Number(value.toPrecision(12))) : String(value));

function cells({ path, value, unit, chain }: ReturnType<typeof effectiveValues>[number]): [string, string, string] {
  return [path, `${shown(value)}${unit && ` ${unit}`}`, chain ? chainSentence(chain, shown) : ''];
}

function known(list: readonly { id: string }[], what: string, id: string | undefined): void {
  if (id === undefined || list.some((one) => one.id === id)) return;
  throw new Exit(EXIT.usage, `there is no ${what} "${id}": there are ${list.map((one) => one.id).join(', ') || 'none'}`);
}
