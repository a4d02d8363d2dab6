import { keepMoves } from './actions/keep-moves';
import { keepBindings } from './inputs/bindings';
import { keepFeedback } from './inputs/keep-feedback';

/** Lets hands move what they are bound to, tells their lights and motors, and keeps what is recorded. `run`: runs a command by its id. */
export function keepPlaying(run: (id: string) => void): void {
  keepBindings(run);
  keepFeedback();
  keepMoves();
}
