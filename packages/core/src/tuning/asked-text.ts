/** Dials and goals as an address or a command line has them: one word each. */
import { GOAL_MEASURES, type BandMeasure } from '../measures/list';
import { STATISTICS, type Statistic } from '../measures/measure';
import { pointerSteps } from '../model/pointer';
import type { Project } from '../model/project';
import type { QuestionGoal } from '../model/question';
import { unitHeads } from '../model/variants';
import { type Dial, dialFor, factorDial, wordDial } from './dial';

/** Behind a dial that no search turns. */
const HELD = '!';

/** `/units/clipper/health/max`, with `=16..28`, or `=nearest`; of a kind of numbers the role before it, and a star for each; held: `!` behind it. */
export function dialText(project: Project, dial: Dial): string {
  const { path, role, low, high, to, locked } = dial;
  if (locked) return dialText(project, { ...dial, locked: false }) + HELD;
  const head = `${role === undefined ? '' : `${encodeURIComponent(role)}:`}${path}`;
  if (to !== undefined) return `${head}=${typeof to === 'boolean' ? (to ? 'yes' : 'no') : to}`;
  const usual = dialOfText(project, head);
  return usual?.low === low && usual.high === high ? head : `${head}=${low}..${high}`;
}

/** Back; undefined for what leads nowhere. A range whose ends are no range is as if none were given. */
export function dialOfText(project: Project, text: string): Dial | undefined {
  if (text.endsWith(HELD)) {
    const dial = dialOfText(project, text.slice(0, -HELD.length));
    return dial && { ...dial, locked: true };
  }
  const [, role, path, range] = /^(?:([^/:=]*):)?(\/[^=]*)(?:=(.*))?$/.exec(text) ?? [];
  if (path === undefined) return undefined;
  const [low, high, more] = range?.split('..').map((end) => (end === '' ? NaN : Number(end))) ?? [];
  const ranged = more === undefined && low < high;
  const general = pointerSteps(path).includes('*');
  if (range !== undefined && !range.includes('..'))
    return wordDial(project, path, range) ?? (range === 'yes' || range === 'no' ? wordDial(project, path, range === 'yes') : undefined);
  const usual = general ? factorDial(project, path, decoded(role)) : dialFor(project, path);
  return usual && ranged ? { ...usual, low, high } : usual;
}

function decoded(role: string | undefined): string | undefined {
  try {
    return role === undefined || role === '' ? undefined : decodeURIComponent(role);
  } catch {
    return role;
  }
}

/** `won:share:0.7..0.9`, `timeToKill:p90`, `span@w2:median:..12`. */
export function goalText({ measure, of, statistic, low, high }: QuestionGoal): string {
  const band = low === undefined && high === undefined ? '' : `:${low ?? ''}..${high ?? ''}`;
  return `${measure}${of === undefined ? '' : `@${of}`}:${statistic}${band}`;
}

/** What is wrong with a goal's text, in words. */
export class NoGoal extends Error {}

/** Back; by its usual statistic where none is given. @throws NoGoal */
export function goalOfText(project: Project, text: string): QuestionGoal {
  const [head, said = '', band, ...rest] = text.split(':');
  const [measure, of] = head.split('@');
  if (!Object.hasOwn(GOAL_MEASURES, measure))
    throw new NoGoal(`there is no measure "${measure}": ${Object.keys(GOAL_MEASURES).join(', ')}`);
  const { usual, share } = GOAL_MEASURES[measure as BandMeasure];
  const statistic = (said === '' ? usual : said) as Statistic;
  if (!(STATISTICS as readonly string[]).includes(statistic))
    throw new NoGoal(`there is no statistic "${statistic}": ${STATISTICS.join(', ')}`);
  if ((statistic === 'share') !== (share === true))
    throw new NoGoal(`"${measure}" ${share ? 'is yes or no in a run: its statistic is share' : 'is a number: its statistic is not share'}`);
  const [low, high, more] = (band ?? '..').split('..').map((end) => (end.trim() === '' ? undefined : Number(end)));
  const odd =
    rest.length > 0 ||
    more !== undefined ||
    !(band ?? '..').includes('..') ||
    [low, high].some((end) => end !== undefined && !Number.isFinite(end));
  if (odd || (low !== undefined && high !== undefined && low > high))
    throw new NoGoal(`"${text}" must be MEASURE:STATISTIC:LOW..HIGH, such as won:share:0.7..0.9`);
  return {
    measure: measure as BandMeasure,
    scope: of === undefined ? 'fight' : unitHeads(project).some(({ id }) => id === of) ? 'unit' : 'wave',
    ...(of !== undefined && { of }),
    statistic,
    ...(low !== undefined && { low }),
    ...(high !== undefined && { high }),
  };
}
