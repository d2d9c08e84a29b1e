import { WAVE, ofWave } from '../measure';

export const span = ofWave({
  label: 'span',
  unit: 's',
  about: 'first spawn to last death',
  of: (wave) => wave.span,
  goal: { of: WAVE },
});
