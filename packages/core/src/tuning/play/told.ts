/** Ways of playing in words, as a warning, and as a play style. */
import type { Warning } from '../../analysis/warning';
import type { Scenario } from '../../analysis/scenario';
import { idFor, nameFor } from '../../model/new-ids';
import { pointerOf } from '../../model/pointer';
import type { Project } from '../../model/project';
import type { Style } from '../../model/tweak';
import { type Habit, type Play, styleOfPlay, wordsOfPlay } from './habits';
import type { PlayFound, ProvedPlay } from './search';

/** Characters of a name that is made of words. */
const LONGEST = 60;

const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** "won 88 %, dose 0.21" */
export const figuresOfPlay = ({ won, dose }: Pick<ProvedPlay, 'won' | 'dose'>): string =>
  `won ${percent(won.value)}, dose ${dose.value.toFixed(2)}`;

/** "keeps 10 m to 18 m, never runs" */
export const sentenceOfPlay = (habits: readonly Habit[], play: Play): string => wordsOfPlay(habits, play).join(', ');

/** That a fight can be won far more cheaply than as it is written; undefined: no such way was found. */
export function cheapWarning({ kind, id }: Scenario, { habits, written, ways }: PlayFound): Warning | undefined {
  const [first] = ways;
  if (!first) return undefined;
  const path = pointerOf(kind === 'encounter' ? 'encounters' : 'units', id);
  return {
    rule: 'wonCheaply',
    severity: 'problem',
    path,
    message: `whoever ${sentenceOfPlay(habits, first.play)} gets away with it: ${figuresOfPlay(first)}; as written ${figuresOfPlay(written)}`,
    mend: 'give the fight an answer to it, or accept it',
    causes: [path],
  };
}

/** How little a player needs to do, in a sentence; undefined: nothing can be left out, or it was not asked. */
export function dullSentence({ habits, written, dullest }: PlayFound): string | undefined {
  if (!dullest) return undefined;
  return `${sentenceOfPlay(habits, dullest.play)}: ${figuresOfPlay(dullest)}; as written ${figuresOfPlay(written)}`;
}

/** The project with a way of playing kept as a style, on top of the one it was found with; what no style can say is left out and told. */
export function withStyleOf(
  project: Project,
  { style: on }: Scenario,
  habits: readonly Habit[],
  play: Play,
): { project: Project; style: Style; left: string[] } {
  const { tweaks, left } = styleOfPlay(habits, play);
  const before = project.styles.find(({ id }) => id === on)?.tweaks ?? [];
  const words = sentenceOfPlay(habits, play);
  const short = words.length > LONGEST ? `${words.slice(0, LONGEST - 2)} …` : words;
  const name = nameFor(
    short,
    project.styles.map((one) => one.name),
  );
  const style: Style = {
    id: idFor(
      name,
      project.styles.map((one) => one.id),
    ),
    name,
    notes: `Found by a search for the cheapest way to win: ${words}.`,
    tweaks: [...structuredClone(before), ...structuredClone(tweaks)],
  };
  return { project: { ...project, styles: [...project.styles, style] }, style, left };
}
