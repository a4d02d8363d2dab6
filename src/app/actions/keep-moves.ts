import { overdubbed } from '../../core/desk/moves';
import { editShow, endGesture } from '../data/show-store';
import { engine } from '../engine/client';
import { say } from '../parts/notices';

/** Lays recorded moves over those of the show; called once. */
export function keepMoves(): void {
  engine().on('recorded', ({ moves, end }) => {
    endGesture();
    editShow((show) => void (show.moves = overdubbed(show.moves, moves, end)), 'clock');
    endGesture();
    say({ tone: 'info', text: `${moves.length} moves were recorded.` });
  });
}
