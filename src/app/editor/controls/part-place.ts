import { formulaName } from '../../../core/formula/names';
import type { ControlLink } from '../../data/session';
import { linkName, type ControlSpec } from '../../../core/kind/controls';
import type { Scene, Wire } from '../../../core/document/types';

export interface PartPlace {
  scene: Scene;
  node: string;
  control: string;
  /** `size`, `place.x`. */
  part: string;
  spec: ControlSpec;
}

/** The wire that drives a part: its own, or one into the whole control. */
export function wireOf({ scene, node, control, part }: PartPlace): Wire | null {
  const into = Object.values(scene.wires).filter((w) => w.to.node === node);
  return into.find((w) => w.to.port === part) ?? into.find((w) => w.to.port === control) ?? null;
}

export function linkTo({ scene, node, control, part }: PartPlace): ControlLink {
  const axis = part.slice(control.length + 1);
  return {
    scene: scene.id,
    node,
    part,
    text: `${formulaName(scene.nodes[node].name)}.${linkName(control, axis)}`,
  };
}
