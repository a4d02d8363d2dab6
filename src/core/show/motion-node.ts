import { kindOf, type Catalogue, type SignalKind } from '../kind/kind';
import { numbersOf } from '../run/node-run';
import { addNode, connect, EditError, setMotions } from './edit';
import type { Patch } from '../document/types';

/**
 * Turns the `k`-th motion of a control part into a node that is wired to it and does the same. Gives the id of the node.
 * The value of the hand goes into the node. Throws EditError where a wire or formula drives the part, or no kind does what
 * the motion does.
 */
export function motionToNode(
  scene: Patch,
  catalogue: Catalogue,
  id: string,
  part: string,
  k: number,
): string {
  const node = scene.nodes[id];
  const kind = kindOf(catalogue, node);
  const motion = node.motions[part]?.[k];
  const [control, axis] = part.split('.');
  const spec = kind?.controls[control];
  if (!motion || !spec) throw new EditError('This motion is gone.');
  const isDriven =
    node.formulas[part] !== undefined ||
    Object.values(scene.wires).some(({ to }) => to.node === id && (to.port === part || to.port === control));
  if (isDriven)
    throw new EditError(
      'A wire or formula drives this control. Set it by hand first; a motion goes into a node from there.',
    );
  const values = numbersOf(spec, node.controls[control]);
  const base = values[axis ? ['x', 'y', 'z'].indexOf(axis) : 0] ?? values['rgba'.indexOf(axis)] ?? 0;
  for (const candidate of catalogue.values()) {
    if (candidate.output !== 'signal') continue;
    const stand = (candidate as SignalKind).fromMotion?.(motion, base);
    if (!stand) continue;
    const made = addNode(scene, catalogue, candidate.id, [node.place[0], node.place[1] + 200]);
    Object.assign(scene.nodes[made].controls, stand.controls);
    if (motion.type === 'hit' && motion.trigger !== null && scene.nodes[motion.trigger])
      connect(scene, catalogue, motion.trigger, made, Object.keys(candidate.inputs)[0]);
    const wire = scene.wires[connect(scene, catalogue, made, id, part)];
    if (stand.to && wire.fit) wire.fit = { ...wire.fit, to: stand.to, edges: 'pass' };
    else delete wire.fit;
    setMotions(
      scene,
      id,
      part,
      node.motions[part].filter((_, other) => other !== k),
    );
    return made;
  }
  throw new EditError('There is no node that does what this motion does.');
}
