import { ofWave } from '../measure';

export const started = ofWave({
  label: 'started',
  unit: 's',
  about: 'on the encounter’s clock',
  turns: { label: 'started in', unit: 'round', about: 'the round' },
  of: (wave) => wave.started,
});
