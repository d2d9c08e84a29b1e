/** Tweaks of tiers, skills and styles that do nothing, or not what they ask for. */
import type { InspectionRule } from '../rules';
import { type ChainStep, type Effective, effectiveEncounter, effectiveUnit, tweakApplies } from '../../model/effective';
import { pointerOf, pointerSteps, placesAt } from '../../model/pointer';
import type { Project } from '../../model/project';
import { placesOfTweaks, samePlace } from '../../model/tiers';
import type { Setting, Tweak, TweakValue } from '../../model/tweak';
import type { Tier } from '../../model/tier';
import { Encounter } from '../../model/encounter';
import { Unit } from '../../model/unit';
import { unitHeads } from '../../model/variants';
import { placeName, tweakWords, valueWords } from '../../model/words';
import type { Warning } from '../warning';
import { amount, idle } from './context';

const LISTS = { tiers: 'tier', skills: 'skill', styles: 'style' } as const;

/** What a tweak came to in one place. */
interface Met {
  unit: string;
  before: TweakValue;
  step: ChainStep<TweakValue>;
  /** What stands there in the end. */
  end: TweakValue;
  base: TweakValue;
}

/** Warnings about the lists of tweaks of a project. */
export function tweaks(project: Project): Warning[] {
  const lists = (Object.keys(LISTS) as (keyof typeof LISTS)[]).flatMap((list) =>
    (project[list] as Setting[]).flatMap((tier) => inList(project, list, tier)),
  );
  return [...lists, ...alike(project), ...outOfOrder(project)];
}

/** Two tiers that make every number the same: one of them is for nothing. */
function alike(project: Project): Warning[] {
  const seen = new Map<string, Tier>();
  return project.tiers.flatMap((tier) => {
    const lens = { tier: tier.id };
    // What it makes different from what is written tells it from others.
    const changes = ({ chains, words }: Pick<Effective<never>, 'chains' | 'words'>) =>
      [...chains, ...words].flatMap(([at, { base, value }]) => (value === base ? [] : [at, value]));
    const key = JSON.stringify([
      unitHeads(project).map(({ id }) => changes(effectiveUnit(project, id, lens))),
      project.encounters.map((encounter) => changes(effectiveEncounter(project, encounter, lens))),
    ]);
    const other = seen.get(key);
    if (!other) {
      seen.set(key, tier);
      return [];
    }
    return [
      {
        rule: 'tiersAlike',
        severity: 'problem' as const,
        path: pointerOf('tiers', tier.id),
        message: `${tier.name} comes out the same as ${other.name} for every enemy and encounter`,
        mend: 'change a number at one of them, or take one out',
        causes: [pointerOf('tiers', tier.id, 'tweaks'), pointerOf('tiers', other.id, 'tweaks')],
      },
    ];
  });
}

/** A factor that rises and falls again over the declared order of the tiers, or the other way round. */
function outOfOrder(project: Project): Warning[] {
  return placesOfTweaks(project.tiers).flatMap((place) => {
    const own = project.tiers.map(({ tweaks: list }) => list.filter((tweak) => samePlace(tweak, place)));
    if (own.some((list) => list.some(({ op }) => op !== '×'))) return [];
    const factors = own.map((list) => list.reduce((product, { value }) => product * Number(value), 1));
    const turn = factors.findIndex(
      (factor, i) => i > 0 && i < factors.length - 1 && (factor - factors[i - 1]) * (factors[i + 1] - factor) < 0,
    );
    if (turn < 0) return [];
    const tier = project.tiers[turn];
    const next = project.tiers[turn + 1];
    const index = tier.tweaks.findIndex((tweak) => samePlace(tweak, place));
    return [
      {
        rule: 'tweakOutOfOrder',
        severity: 'notice' as const,
        path: index < 0 ? pointerOf('tiers', tier.id) : pointerOf('tiers', tier.id, 'tweaks', index),
        message: `${placeName(place.path, place.scope === 'encounter' ? Encounter : Unit)} of ${whoIs(project, place)} is × ${amount(factors[turn])} at ${tier.name}, × ${amount(factors[turn - 1])} below it and × ${amount(factors[turn + 1])} at ${next.name} above it`,
        mend: 'let it rise or fall from tier to tier',
        causes: project.tiers.map(({ id }) => pointerOf('tiers', id, 'tweaks')),
      },
    ];
  });
}

/** "all enemies", "Briar Hound", "role swarm". */
function whoIs(project: Project, { scope, of }: Pick<Tweak, 'scope' | 'of'>): string {
  const called = { enemies: 'all enemies', party: 'the party', encounter: 'the encounter' };
  if (scope === 'role') return `role ${of}`;
  return scope === 'unit' ? (unitHeads(project).find(({ id }) => id === of)?.name ?? of ?? '') : called[scope];
}

function inList(project: Project, list: keyof typeof LISTS, tier: Setting): Warning[] {
  const found: Warning[] = [];
  const heads = unitHeads(project);
  const met: Met[][] = tier.tweaks.map(() => []);
  for (const { id, name } of heads) {
    const { chains, words } = effectiveUnit(project, id, { [LISTS[list]]: tier.id });
    for (const chain of [...chains.values(), ...words.values()]) {
      let before: TweakValue = chain.base;
      for (const step of chain.steps) {
        if (step.source === LISTS[list]) met[step.index].push({ unit: name, before, step, end: chain.value, base: chain.base });
        before = step.granted;
      }
    }
  }
  tier.tweaks.forEach((tweak, index) => {
    const at = pointerOf(list, tier.id, 'tweaks', index);
    const warn = (rule: InspectionRule, message: string, mend: string) =>
      found.push({
        rule,
        severity: 'problem',
        path: at,
        message,
        mend,
        causes: [pointerOf(list, tier.id, 'tweaks')],
        fixes: [{ name: 'take it out', list, id: tier.id, index }],
      });
    if (tweak.scope === 'encounter') return;
    const what = tweakWords(Unit, tweak);
    const words = (value: TweakValue) => (typeof value === 'number' ? amount(value) : valueWords(Unit, pointerSteps(tweak.path), value));
    if (!speaksOfAnything(project, tweak))
      return warn('tweakOfNothing', `${what} speaks of nobody who has that number`, 'change whom or what it speaks of');
    const places = met[index];
    if (!places.length) return;
    if (idle(tweak) || (typeof tweak.value !== 'number' && places.every(({ before, step }) => step.granted === before)))
      return warn('tweakVoid', `${what} changes nothing`, 'give it another value');
    const capped = places.find(({ before, step }) => step.granted === before && step.asked !== step.granted);
    if (places.every(({ before, step }) => step.granted === before && step.asked !== step.granted) && capped)
      return warn(
        'tweakVoid',
        `${what} is taken away by a limit: ${capped.unit} asked for ${words(capped.step.asked)}, granted ${words(capped.step.granted)}`,
        'raise the limit or take the tweak out',
      );
    const undone = places.find(({ base, end, step }) => step.granted !== base && end === base);
    if (undone && places.every(({ base, end }) => end === base))
      return warn(
        'tweakUndone',
        `${what} comes to nothing for ${undone.unit}: asked ${words(undone.step.asked)}, and ${words(undone.base)} as written in the end`,
        'look for a limit or a later tweak that takes it back',
      );
    const limited = places.find(({ step, base, end }) => tweak.max !== undefined && step.asked > step.granted && end === base);
    if (limited && places.every(({ base, end }) => end === base))
      warn(
        'tweakUndone',
        `${what} meets its cap of ${amount(tweak.max ?? 0)}: ${limited.unit} has ${words(limited.end)}, as written`,
        'raise the cap',
      );
  });
  return [...found, ...shields(project, list, tier)];
}

function speaksOfAnything(project: Project, tweak: Tweak): boolean {
  return unitHeads(project).some(({ id }) => {
    const { unit } = effectiveUnit(project, id, {});
    return tweakApplies(tweak, unit) && placesAt(unit, pointerSteps(tweak.path)).length > 0;
  });
}

/** More health and the shield left as it was: the first layer stays as thin. */
function shields(project: Project, list: keyof typeof LISTS, tier: Setting): Warning[] {
  return unitHeads(project).flatMap(({ id, name }) => {
    const { unit, chains } = effectiveUnit(project, id, { [LISTS[list]]: tier.id });
    const health = chains.get('/health/max');
    const own = health?.steps.find(({ source }) => source === LISTS[list]);
    if (!unit.shield || !health || !own || health.value === health.base || chains.has('/shield/max')) return [];
    return [
      {
        rule: 'shieldNotScaled',
        severity: 'notice' as const,
        path: pointerOf('units', id, 'shield', 'max'),
        message: `${tier.name} scales the health of ${name} (${amount(health.base)} → ${amount(health.value)}) but not its shield of ${amount(unit.shield.max)}`,
        mend: `let ${tier.name} scale the shield too`,
        causes: [pointerOf(list, tier.id, 'tweaks')],
      },
    ];
  });
}
