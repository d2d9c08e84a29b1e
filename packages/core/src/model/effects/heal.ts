import { Healing, healingWords } from './healing';
import { brief, effect } from './parts';

export const heal = effect({
  type: Healing,
  label: 'Heal',
  compile: ({ amount, share }: Healing) => ({ amount, share }),
  help: (struck, { amount, share }) => struck.heal(amount, share),
  event: {
    name: 'heal',
    values: ['given', 'wasted'],
    told: ({ name, otherName, values: { given, wasted } }) =>
      `${name} gives ${otherName} ${brief(given)} health${wasted > 0.05 ? ` (${brief(wasted)} wasted)` : ''}`,
  },
  sentence: (given) => `heals ${healingWords(given)}`,
  typical: { amount: [0, 12], share: [0, 0.3] },
});
