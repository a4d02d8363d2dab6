import type { ProgramState } from '../../core/desk/performance-state';
import type { OutputSource } from '../protocol/protocol';
import type { Look } from '../image/look';
import type { Presented } from './presenter';

/** Looks of what is playing. */
export interface Looks {
  /** The picture of a scene of the show. */
  ofScene(id: string): Look | undefined;
  /** The picture of a source that is one scene. */
  of(source: OutputSource): Look | undefined;
  nothing: Look;
}

/** What an output of a source shows now, transitions included. */
export function presented(
  source: OutputSource,
  { program, incoming, fade, next, byHand }: ProgramState,
  looks: Looks,
): Omit<Presented, 'level' | 'transition'> {
  const { nothing } = looks;
  const scene = (id: string | null): Look => (id ? looks.ofScene(id) : undefined) ?? nothing;
  switch (source.type) {
    case 'program':
    case 'screen':
    case 'room':
      return {
        first: scene(program),
        second: scene(incoming),
        // Eased at both ends, so that a transition neither starts nor stops with a jerk; a hand eases by itself.
        fade: incoming ? (byHand ? fade : fade * fade * (3 - 2 * fade)) : 0,
      };
    case 'next':
      return { first: scene(next), second: nothing, fade: 0 };
    case 'scene':
    case 'tile':
    case 'node':
    case 'example':
      return { first: looks.of(source) ?? nothing, second: nothing, fade: 0 };
  }
}
