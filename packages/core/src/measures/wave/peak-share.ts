import { WAVE, ofWave } from '../measure';

export const peakShare = ofWave({
  label: 'peak pressure',
  unit: '/s',
  about: 'that its units made, as a share of the party’s full health',
  of: (wave) => wave.peakShare,
  goal: { of: WAVE, percent: true, key: 'wavePeak', label: 'wave’s peak pressure' },
});
