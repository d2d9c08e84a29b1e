import { Healing, healingWords } from './healing';
import { brief, effect } from './parts';

export const revive = effect({
  type: Healing,
  label: 'Revive',
  about: 'brings a fallen friend back with this much health',
  isItself: 'raising',
  compile: ({ amount, share }: Healing) => ({ amount, share }),
  event: {
    name: 'revive',
    values: ['health'],
    told: ({ name, otherName, values }) => `${name} brings ${otherName} back with ${brief(values.health)} health`,
  },
  sentence: (given) => `raises with ${healingWords(given)}`,
  typical: { amount: [0, 6], share: [0.1, 0.5] },
});
