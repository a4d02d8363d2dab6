import type { Motion } from '../../../core/document/types';

/** What a motion is called on the desk, and the number that is its speed. */
export function spokenMotion(motion: Motion): {
  label: string;
  speed: { value: number; put(motion: Motion, value: number): void } | null;
} {
  switch (motion.type) {
    case 'swing':
    case 'walk':
      return {
        label: motion.type === 'swing' ? 'Swing' : 'Walk',
        speed: {
          value: motion.rate,
          put: (one, value) => {
            if (one.type === 'swing' || one.type === 'walk') one.rate = value;
          },
        },
      };
    case 'wander':
      return {
        label: 'Wander',
        speed: {
          value: motion.speed,
          put: (one, value) => {
            if (one.type === 'wander') one.speed = value;
          },
        },
      };
    case 'ramp':
      return {
        label: 'Ramp',
        speed: {
          // Once a length: its speed is how many there are in a beat or second.
          value: motion.length > 0 ? 1 / motion.length : 0,
          put: (one, value) => {
            if (one.type === 'ramp' && value > 0) one.length = 1 / value;
          },
        },
      };
    case 'hit':
      return { label: 'Hit', speed: null };
    case 'follow':
      return { label: 'Follow', speed: null };
    case 'colours':
      return { label: 'Colours', speed: null };
  }
}
