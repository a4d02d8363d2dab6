import type { Scene } from '../../core/document/types';
import made from './starts.generated.json' with { type: 'json' };

/** A scene to begin from. */
interface Start {
  id: string;
  name: string;
  /** One sentence: what it shows. */
  about: string;
  scene: Scene;
  /** Modules that it uses, by id; they ship. */
  modules: readonly string[];
}

/** Starting points of new scenes, from the smallest to a wall with sound. */
export const starts = made as unknown as readonly Start[];
