import type { PatchNode, Scene, Show } from '../src/core/document/types';
import { UsageError } from './arguments';

/** The scene of that name or id. */
export function findScene(show: Show, wanted: string | undefined): Scene {
  if (wanted === undefined)
    throw new UsageError(`--scene is missing. The show has: ${show.scenes.map((s) => s.name).join(', ')}.`);
  const found = show.scenes.find((s) => s.name === wanted) ?? show.scenes.find((s) => s.id === wanted);
  if (!found)
    throw new UsageError(
      `There is no scene ${wanted}. The show has: ${show.scenes.map((s) => s.name).join(', ')}.`,
    );
  return found;
}

/** The node of that name or id. */
function findNode(scene: Scene, wanted: string | undefined): PatchNode {
  const nodes = Object.values(scene.nodes);
  const names = nodes.map((n) => n.name).join(', ');
  if (wanted === undefined) throw new UsageError(`--node is missing. ${scene.name} has: ${names}.`);
  const found = nodes.find((n) => n.name === wanted) ?? nodes.find((n) => n.id === wanted);
  if (!found) throw new UsageError(`There is no node ${wanted}. ${scene.name} has: ${names}.`);
  return found;
}

/** Scenes of those names or ids, and in each the nodes that are wanted. */
export function findAll(
  show: Show,
  scenes: readonly string[],
  nodes: readonly string[],
): { scene: Scene; nodes: PatchNode[] }[] {
  return (scenes.length ? scenes : [undefined]).map((wanted) => {
    const scene = findScene(show, wanted);
    return { scene, nodes: nodes.map((node) => findNode(scene, node)) };
  });
}
