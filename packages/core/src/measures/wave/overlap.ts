import { WAVE, ofWave } from '../measure';

export const overlap = ofWave({
  label: 'overlap',
  unit: 's',
  about: 'for which the next wave ran before this one was over',
  turns: { about: 'rounds in which the next wave ran before this one was over' },
  of: (wave) => wave.overlap,
  goal: { of: WAVE },
});
