import { WAVE, ofWave } from '../measure';

export const rest = ofWave({
  label: 'rest',
  unit: 's',
  about: 'of lull between its first unit and the next wave’s',
  of: (wave) => wave.rest,
  goal: { of: WAVE },
});
