import { WAVE, ofWave } from '../measure';

export const score = ofWave({
  label: 'score',
  unit: '',
  about: 'worth of its units that were killed',
  of: (wave) => wave.score,
  goal: { of: WAVE, usual: 'mean', key: 'waveScore', label: 'wave’s score' },
});
