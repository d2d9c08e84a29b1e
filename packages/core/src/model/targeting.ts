/** Whom a unit picks among others: criteria that are weighed, and filters. */
import { About, Group, ListOf, OneOf, Optional, Quantity, RefersByName, RefersToSome } from './field';
import { LIMITS } from './limits';

const CRITERIA = {
  nearest: 'nearest',
  lowestHealth: 'least health',
  lowestShare: 'least share of health',
  highestDamage: 'most damage a second',
  mostDamageToMe: 'hurt me most',
  lastAttacker: 'hurt me last',
  role: 'role',
  unit: 'one unit',
  random: 'by chance',
  falls: 'this would fell it',
  mostHarm: 'loses most to this',
  carries: 'has an attack',
  mostCharges: 'most charges left',
} as const;
type Criterion = keyof typeof CRITERIA;
export const CRITERIA_NAMES = Object.keys(CRITERIA) as Criterion[];

@About('What makes one target better than another: each is brought to 0–1 over the candidates and weighed.')
export class TargetCriterion {
  @OneOf(CRITERIA, { label: 'By', about: 'what is compared' }) by: Criterion;
  @Quantity({ label: 'Weight', unit: '', min: 0, max: 1000, about: 'of this criterion among the others' }) weight = 1;
  @Optional()
  @RefersByName({ to: { by: 'by', kinds: { role: 'role', unit: 'unit', carries: 'attackName' } }, loose: true, gone: 'blocks' }, 80, {
    label: 'Whom',
    about: 'the role, the unit, or the name of the attack',
    when: { by: ['role', 'unit', 'carries'] },
  })
  of?: string;
}

/** Taken off a list of one, "only it" would become "anybody". */
const unlessTheLast = (filter: object, at: readonly string[]) => {
  const { roles, units } = filter as TargetFilter;
  return at[at.length - 1] === 'only' && units.length + roles.length <= 1 ? 'blocks' : 'clears';
};

@About('Roles and units, by name and id.')
export class TargetFilter {
  @RefersToSome({ to: ['role'], loose: true }, LIMITS.words, { label: 'Roles', about: 'everybody of these roles' }) roles: string[] = [];
  @RefersToSome({ to: ['unit'], loose: true, gone: unlessTheLast }, LIMITS.words, { label: 'Units', about: 'everybody of these units' })
  units: string[] = [];
}

@About('Whom it goes for.')
export class Targeting {
  @ListOf(() => TargetCriterion, 16, { label: 'Criteria', about: 'each is brought to 0–1 over the candidates and weighed' })
  criteria: TargetCriterion[] = [Object.assign(new TargetCriterion(), { by: 'nearest', weight: 1 })];
  @Quantity({ label: 'Reconsiders every', unit: 's', min: 0, max: 60, about: 'time between looks for a better target; 0: at every step' })
  reconsider = 0.5;
  @Quantity({ label: 'Commitment', unit: '', min: 0, max: 1, about: 'another target must be better by this share to be preferred' })
  commitment = 0.1;
  @Optional() @Group(() => TargetFilter, { label: 'Only', about: 'nobody else is a candidate' }) only?: TargetFilter;
  @Optional() @Group(() => TargetFilter, { label: 'Never', about: 'they are no candidates' }) never?: TargetFilter;
}
