import { ofWave } from '../measure';

export const started = ofWave({
  label: 'started',
  unit: 's',
  about: 'on the encounter’s clock',
  of: (wave) => wave.started,
});
