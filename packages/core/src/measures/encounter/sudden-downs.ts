import { suddenDowns as downsAtOnce } from '../fairness';
import { EITHER, ofRun } from '../measure';

export const suddenDowns = ofRun({
  label: 'sudden downs',
  unit: '',
  about: 'members down from above 80 % of health within 1 s',
  turns: { about: 'members down from above 80 % of health within one round' },
  of: ({ stream }) => downsAtOnce(stream),
  goal: { of: EITHER, usual: 'mean' },
});
