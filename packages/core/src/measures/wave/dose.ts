import { WAVE, ofWave } from '../measure';

export const dose = ofWave({
  label: 'pressure dose',
  unit: '',
  about: 'that its units made',
  of: (wave) => wave.dose,
  goal: { of: WAVE, usual: 'mean', key: 'waveDose', label: 'wave’s pressure dose' },
});
