/** Generated ways to pick a target: every criterion there is, alone and weighed against others, with filters. */
import fc from 'fast-check';
import { CRITERIA_NAMES } from '../model/targeting';

/** @param units @param attacks what criteria and filters may speak of: ids of units, names of attacks */
export function arbitraryTargeting(units: readonly string[], attacks: readonly string[]) {
  const weight = fc.constantFrom(1, 2, 0.5);
  const criterion = fc.constantFrom(...CRITERIA_NAMES).chain((by) => {
    const whom: Partial<Record<typeof by, readonly string[]>> = { unit: units, role: ['enemy', 'mender'], carries: attacks };
    const of = whom[by];
    return of ? fc.record({ by: fc.constant(by), of: fc.constantFrom(...of), weight }) : fc.record({ by: fc.constant(by), weight });
  });
  const filter = fc.record({ units: fc.uniqueArray(fc.constantFrom(...units), { minLength: 1, maxLength: 2 }) });
  return fc.record(
    {
      criteria: fc.array(criterion, { minLength: 1, maxLength: 3 }),
      commitment: fc.constantFrom(0, 0.1, 0.5),
      reconsider: fc.constantFrom(0, 0.3, 1),
      never: filter,
    },
    { requiredKeys: ['criteria', 'commitment', 'reconsider'] },
  );
}
