import type { ControlSpec } from '../../core/kind/controls';
import type { Kind } from '../../core/kind/kind';
import { makeShow } from '../../core/show/create';
import type { Scene, Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { exampleOf } from '../../nodes/examples';

/** A show with a scene for each kind: its example. Scenes have the ids of their kinds. */
export const galleryShow = (): Show => ({
  ...makeShow(catalogue, 'Gallery'),
  scenes: [...catalogue.values()].map((kind): Scene => ({
    ...exampleOf(kind),
    id: kind.id,
    name: kind.label,
  })),
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
