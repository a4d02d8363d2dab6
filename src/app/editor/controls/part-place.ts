import { formulaName } from '../../../core/formula/names';
import { linkName, type ControlSpec } from '../../../core/kind/controls';
import type { Scene, Wire } from '../../../core/show/types';

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

/** A control part on its way to another that will follow it. */
export interface ControlLink {
  scene: string;
  node: string;
  part: string;
  /** How formulas name it. */
  text: string;
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
