import type { PerformanceState } from '../../core/desk/performance-state';

/** Whether the switch that a command is stands on, 1 or 0: for the light of a button. Null: it is no switch. */
export function commandStands(id: string, state: PerformanceState): number | null {
  switch (id) {
    case 'stage.blackout':
      return state.blackout ? 1 : 0;
    case 'stage.freeze':
      return state.freeze ? 1 : 0;
    case 'transport.play':
      return state.transport.playing ? 1 : 0;
    case 'play.hold':
      return state.cues.held ? 1 : 0;
    case 'play.record':
      return state.moves.recording ? 1 : 0;
    case 'play.replay':
      return state.moves.replaying ? 1 : 0;
    default:
      return null;
  }
}
