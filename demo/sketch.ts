import { addNode, connect, renameNode, setFormula, setMotions } from '../src/core/show/edit';
import { makeScene } from '../src/core/show/create';
import { sceneOutOf } from '../src/core/patch/plan';
import type {
  ControlValue,
  Fit,
  Swing,
  PatchNode,
  ReturnSettings,
  Scene,
  Wire,
} from '../src/core/document/types';
import { catalogue } from '../src/nodes/catalogue';

/** Writes a scene with the same edits that a hand makes in Build. */
export class Sketch {
  readonly scene: Scene;
  readonly out: string;

  constructor(id: string, name: string, outPlace: [number, number]) {
    this.scene = makeScene(catalogue, id, name);
    this.out = sceneOutOf(this.scene, catalogue)!;
    this.scene.nodes[this.out].place = outPlace;
  }

  add(
    kind: string,
    name: string,
    place: [number, number],
    controls: Record<string, ControlValue> = {},
    more: Partial<PatchNode> = {},
  ): string {
    const id = addNode(this.scene, catalogue, kind, place);
    renameNode(this.scene, id, name);
    const known = catalogue.get(kind)!.controls;
    for (const control of Object.keys(controls)) {
      if (!Object.hasOwn(known, control)) throw new Error(`${name} has no control ${control}.`);
    }
    Object.assign(this.scene.nodes[id].controls, controls);
    Object.assign(this.scene.nodes[id], more);
    return id;
  }

  wire(from: string, to: string, port: string, fit?: [number, number], more: Partial<Wire> = {}): string {
    const id = connect(this.scene, catalogue, from, to, port);
    const wire = this.scene.wires[id];
    if (fit) wire.fit = { ...(wire.fit as Fit), to: fit };
    Object.assign(wire, more);
    return id;
  }

  back(wire: string, settings: Partial<ReturnSettings>): void {
    const { back } = this.scene.wires[wire];
    if (!back) throw new Error(`${wire} closes no circle.`);
    Object.assign(back, settings);
  }

  formula(node: string, part: string, text: string): void {
    setFormula(this.scene, node, part, text);
  }

  swing(node: string, part: string, motion: Partial<Swing>): void {
    setMotions(this.scene, node, part, [
      { type: 'swing', on: true, amount: 0.1, shape: 'sine', rate: 0.1, unit: 'hertz', phase: 0, ...motion },
    ]);
  }
}
