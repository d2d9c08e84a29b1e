import { About } from '../field';
import { seconds } from './parts';

@About('Something that lasts.')
export class Lasting {
  @seconds('For', 'how long it lasts') for = 1;
}
