import { raised as revived } from '../healing';
import { ENCOUNTER, ofRun } from '../measure';

export const raised = ofRun({
  label: 'enemies raised',
  unit: '',
  about: 'brought back after they had died',
  of: ({ stream }) => revived(stream),
  goal: { of: ENCOUNTER, usual: 'mean' },
});
