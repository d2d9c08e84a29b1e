import { WAVE, ofWave } from '../measure';

export const span = ofWave({
  label: 'span',
  unit: 's',
  about: 'first spawn to last death',
  turns: { about: 'first spawn to last death, both rounds counted' },
  of: (wave) => wave.span,
  goal: { of: WAVE },
});
