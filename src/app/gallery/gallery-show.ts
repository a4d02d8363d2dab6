import type { ControlSpec } from '../../core/kind/controls';
import type { Kind } from '../../core/kind/kind';
import { makeShow } from '../../core/show/create';
import type { Scene, Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { exampleOf } from '../../nodes/examples';

/** The same scene with ids that no other has: numbers of cards come by the id of their node alone. */
function withOwnIds({ nodes, wires, ...scene }: Scene): Scene {
  const own = (id: string): string => `${scene.id}-${id}`;
  return {
    ...scene,
    nodes: Object.fromEntries(
      Object.values(nodes).map((node) => [own(node.id), { ...node, id: own(node.id) }]),
    ),
    wires: Object.fromEntries(
      Object.values(wires).map((wire) => [
        own(wire.id),
        {
          ...wire,
          id: own(wire.id),
          from: { ...wire.from, node: own(wire.from.node) },
          to: { ...wire.to, node: own(wire.to.node) },
        },
      ]),
    ),
  };
}

/** A show with a scene for each kind: its example. Scenes have the ids of their kinds. */
export const galleryShow = (): Show => ({
  ...makeShow(catalogue, 'Gallery'),
  scenes: [...catalogue.values()].map((kind) =>
    withOwnIds({ ...exampleOf(kind), id: kind.id, name: kind.label }),
  ),
});

/** The node of the kind that a scene of the gallery is about; undefined if it was deleted. */
export const subjectOf = (scene: Scene): string | undefined =>
  Object.values(scene.nodes).findLast((node) => node.kind === scene.id)?.id;

/** For each type of control the first kind that has one, and its name. */
export function controlOfEachType(): { type: ControlSpec['type']; kind: Kind; control: string }[] {
  const found = new Map<ControlSpec['type'], { type: ControlSpec['type']; kind: Kind; control: string }>();
  for (const kind of catalogue.values())
    for (const [control, { type, shownIf }] of Object.entries(kind.controls))
      if (!found.has(type) && !shownIf) found.set(type, { type, kind, control });
  return [...found.values()];
}
