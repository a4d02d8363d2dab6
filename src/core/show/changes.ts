import type { Module, PatchNode, Scene, Show, Wire } from '../document/types';

/** All of a show but what changes come by themselves for. */
type ShowHead = Omit<Show, 'scenes' | 'modules'>;

/** All of a scene but its nodes and wires. */
type SceneHead = Omit<Scene, 'id' | 'nodes' | 'wires'>;

/** A small change of a show document, as it is sent to the engine. */
export type ShowChange =
  | { type: 'head'; head: ShowHead }
  | { type: 'module'; id: string; module: Module | null }
  | { type: 'scenes'; order: string[]; added: Scene[] }
  | { type: 'scene'; scene: string; head: SceneHead }
  | { type: 'node'; scene: string; id: string; node: PatchNode | null }
  | { type: 'wire'; scene: string; id: string; wire: Wire | null };

function changesOf<T>(before: Record<string, T>, after: Record<string, T>): [string, T | null][] {
  if (before === after) return [];
  const list: [string, T | null][] = [];
  for (const id of Object.keys(before)) if (!Object.hasOwn(after, id)) list.push([id, null]);
  for (const [id, value] of Object.entries(after)) if (before[id] !== value) list.push([id, value]);
  return list;
}

/**
 * What differs between two states of a show that share all unchanged parts by identity, as states of an immutable store
 * do. Costs as much as there are scenes, plus the nodes and wires of those that changed.
 */
export function changesBetween(before: Show, after: Show): ShowChange[] {
  if (before === after) return [];
  const changes: ShowChange[] = [];
  const { scenes: oldScenes, modules: oldModules, ...oldHead } = before;
  const { scenes, modules, ...head } = after;
  if (Object.keys(head).some((key) => head[key as keyof typeof head] !== oldHead[key as keyof typeof head])) {
    changes.push({ type: 'head', head });
  }
  for (const [id, module] of changesOf(oldModules, modules)) changes.push({ type: 'module', id, module });
  if (oldScenes === scenes) return changes;
  const old = new Map(oldScenes.map((scene) => [scene.id, scene]));
  if (scenes.length !== oldScenes.length || scenes.some((scene, k) => oldScenes[k].id !== scene.id)) {
    changes.push({
      type: 'scenes',
      order: scenes.map((s) => s.id),
      added: scenes.filter((s) => !old.has(s.id)),
    });
  }
  for (const scene of scenes) {
    const was = old.get(scene.id);
    if (!was || was === scene) continue;
    const { name, loop, button, frames } = scene;
    if (was.name !== name || was.loop !== loop || was.button !== button || was.frames !== frames) {
      const head: SceneHead = { name, loop };
      if (button) head.button = button;
      if (frames) head.frames = frames;
      changes.push({ type: 'scene', scene: scene.id, head });
    }
    for (const [id, node] of changesOf(was.nodes, scene.nodes))
      changes.push({ type: 'node', scene: scene.id, id, node });
    for (const [id, wire] of changesOf(was.wires, scene.wires))
      changes.push({ type: 'wire', scene: scene.id, id, wire });
  }
  return changes;
}

function withEntry<T>(record: Record<string, T>, id: string, value: T | null): Record<string, T> {
  if (value !== null) return { ...record, [id]: value };
  const { [id]: gone, ...rest } = record;
  void gone;
  return rest;
}

/** The show with the changes made; everything untouched keeps its identity. */
export function applyChanges(show: Show, changes: readonly ShowChange[]): Show {
  let next = show;
  const onScene = (id: string, edit: (scene: Scene) => Scene): void => {
    next = { ...next, scenes: next.scenes.map((scene) => (scene.id === id ? edit(scene) : scene)) };
  };
  for (const change of changes) {
    switch (change.type) {
      case 'head':
        next = { ...change.head, modules: next.modules, scenes: next.scenes };
        break;
      case 'module':
        next = { ...next, modules: withEntry(next.modules, change.id, change.module) };
        break;
      case 'scenes': {
        const all = new Map([...next.scenes, ...change.added].map((scene) => [scene.id, scene]));
        next = { ...next, scenes: change.order.flatMap((id) => all.get(id) ?? []) };
        break;
      }
      case 'scene':
        onScene(change.scene, ({ id, nodes, wires }) => ({ id, ...change.head, nodes, wires }));
        break;
      case 'node':
        onScene(change.scene, (scene) => ({
          ...scene,
          nodes: withEntry(scene.nodes, change.id, change.node),
        }));
        break;
      case 'wire':
        onScene(change.scene, (scene) => ({
          ...scene,
          wires: withEntry(scene.wires, change.id, change.wire),
        }));
        break;
    }
  }
  return next;
}
