import { About } from '../field';
import { InTurns, LastingRounds } from '../rounds';
import { seconds } from './parts';

@About('Something that lasts.')
export class Lasting {
  @seconds('For', 'how long it lasts') for = 1;
  @InTurns(() => LastingRounds) rounds?: LastingRounds;
}
