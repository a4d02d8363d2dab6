import { endsOf } from '../../../core/module/module-kind';
import { sceneOutOf } from '../../../core/patch/plan';
import type { Scene } from '../../../core/document/types';
import { catalogue } from '../../../nodes/catalogue';

/** The node whose output the bench shows: the chosen one, or the scene's picture. */
export const benchNodeOf = (scene: Scene, selection: readonly string[]): string | null =>
  scene.nodes[selection[0]]
    ? selection[0]
    : (sceneOutOf(scene, catalogue) ?? endsOf(scene, catalogue).out[0]?.id ?? null);
