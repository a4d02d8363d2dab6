import { moduleIdOf } from '../../core/module/module-kind';
import { dissolveModule } from '../../core/show/dissolve-module';
import { makeOwn } from '../../core/show/edit-module';
import { goesAlong, makeModule } from '../../core/show/make-module';
import type { Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { choose } from '../data/session';
import { say } from '../parts/notices';
import { editPatch } from './module-actions';

/** Makes one node of those chosen, and chooses it. */
export function makeModuleOf(scene: Scene, chosen: readonly string[]): void {
  const along = goesAlong(scene, catalogue, chosen).filter((id) => !chosen.includes(id));
  const id = editPatch(scene.id, (show, patch) => makeModule(show, catalogue, patch, chosen, 'Module'));
  if (!id) return;
  choose([id]);
  if (along.length)
    say({
      tone: 'info',
      text: `${along.map((other) => scene.nodes[other].name).join(', ')} came along: it lies between the others.`,
    });
}

/** Puts what lies in module nodes back into the patch. */
export function dissolve(scene: Scene, nodes: readonly string[]): void {
  const ids = editPatch(scene.id, (show, patch) =>
    nodes
      .filter((id) => moduleIdOf(patch.nodes[id].kind) !== null)
      .flatMap((id) => dissolveModule(show, catalogue, patch, id)),
  );
  if (ids) choose(ids);
}

/** Gives a node a module of its own. */
export const separate = (scene: Scene, node: string): void =>
  void editPatch(scene.id, (show, patch) => makeOwn(show, patch, node));
