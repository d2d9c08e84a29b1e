import { About } from '../field';
import { numberWords as n } from '../number-words';
import { points, share } from './parts';

@About('An amount and a share of full health, added together.')
export class Healing {
  @points('Heals', 'health given at each hit') amount = 0;
  @share('Heals share', 'share of full health given besides') share = 0;
}

export function healingWords({ amount, share: part }: Healing): string {
  return [amount > 0 && `${n(amount)} hp`, part > 0 && `${n(100 * part)} % of full health`].filter(Boolean).join(' and ') || 'nothing';
}
