import { sceneOutOf } from '../core/patch/plan';
import type { Catalogue, ExampleFeed, InputSpec, Kind } from '../core/kind/kind';
import { makeScene } from '../core/show/create';
import { addNode, connect, EditError, setFormula } from '../core/show/edit';
import type { Scene } from '../core/document/types';
import { catalogue as shipped } from './catalogue';

/** What examples are fed by, where an input's name says what it is for; else by what it carries. */
const feeds: Readonly<Record<string, ExampleFeed>> = {
  over: { kind: 'flat-shape', controls: { form: 'star', size: [0.5, 0.5], turn: 18 } },
  light: { kind: 'fill', controls: { colour: [0.37, 0.78, 0.75, 1] } },
  mask: { kind: 'flat-shape', controls: { size: [0.7, 0.7], softness: 0.2, fill: [1, 1, 1, 1] } },
  map: { kind: 'noise', controls: { channels: 'three', octaves: 2, period: 0.4, amplitude: 1 } },
  radiusMap: { kind: 'gradient', controls: { length: 1.8 } },
  trigger: { kind: 'oscillator', controls: { shape: 'square', rate: 1 } },
  open: { kind: 'oscillator', controls: { shape: 'square', rate: 0.5 } },
  restart: { kind: 'oscillator', controls: { shape: 'square', rate: 0.1, width: 0.1 } },
  curve: { kind: 'values', controls: { list: [0, 1, 0.2, 0.8, 0] } },
  slices: { kind: 'gradient', controls: { length: 1.8, turn: 90 } },
};

const byCarried: Readonly<Record<InputSpec['carries'], ExampleFeed>> = {
  image: { kind: 'picture', controls: { file: 'shipped:wax-pane.webp', fit: 'cover' } },
  signal: { kind: 'oscillator', controls: { rate: 0.5 } },
  shape: { kind: 'ball' },
  prop: { kind: 'body' },
  field: { kind: 'field-box' },
};

/** Puts an example together of kinds of a catalogue: that of modules too. */
class ExampleMaker {
  readonly scene: Scene;
  private readonly columns = [0, 0, 0, 0, 0, 0, 0, 0];

  constructor(
    name: string,
    private readonly catalogue: Catalogue,
  ) {
    this.scene = makeScene(catalogue, 'example', name);
  }

  add(feed: ExampleFeed, column: number): string {
    const id = addNode(this.scene, this.catalogue, feed.kind, [column * 200, this.columns[column]++ * 170]);
    for (const [control, value] of Object.entries(feed.controls ?? {}))
      if (Object.hasOwn(this.scene.nodes[id].controls, control))
        this.scene.nodes[id].controls[control] = value;
    return id;
  }

  /** Wires something into each input of a node, and into theirs. */
  feed(id: string, kind: Kind, column: number): void {
    const [first] = Object.keys(kind.inputs);
    for (const [port, spec] of Object.entries(kind.inputs)) {
      const special = port === first ? (kind.example?.feed ?? feeds[port]) : feeds[port];
      const source = special ?? byCarried[spec.carries];
      const from = this.add(source, column - 1);
      const sourceKind = this.catalogue.get(source.kind)!;
      if (column > 1) this.feed(from, sourceKind, column - 1);
      connect(this.scene, this.catalogue, from, id, port);
    }
  }

  private tryWire(from: string, kind: string, port: string, column: number): string | null {
    const to = this.add({ kind }, column);
    try {
      connect(this.scene, this.catalogue, from, to, port);
      return to;
    } catch (error) {
      if (!(error instanceof EditError)) throw error;
      return null;
    }
  }

  /** Leads what a node gives to a picture. */
  show(id: string, kind: Kind, column: number): void {
    let last: string | null = id;
    if (kind.output === 'signal') {
      // A row of dots, one for each sample, as high as its value.
      const row = this.add({ kind: 'instances', controls: { tint: [1, 0.66, 0.24, 1] } }, column + 1);
      setFormula(this.scene, row, 'size', 'n > 1 ? 0.08 : 0.3');
      setFormula(this.scene, row, 'place.x', '((i + 0.5) / n - 0.5) * 1.4');
      connect(this.scene, this.catalogue, id, row, 'place.y');
      last = this.tryWire(row, 'shot', 'props', column + 2);
    } else if (kind.output === 'shape') {
      const body = this.tryWire(id, 'body', 'shape', column + 1);
      last = body && this.tryWire(body, 'shot', 'props', column + 2);
    } else if (kind.output === 'field') {
      last = this.tryWire(id, 'field-shot', 'fields', column + 1);
    } else if (kind.output === 'prop') {
      const shot = this.tryWire(id, 'shot', 'props', column + 1);
      // A light or a camera by itself has nothing to show.
      const something = this.add({ kind: 'body' }, column - 1);
      this.feed(something, this.catalogue.get('body')!, column - 1);
      if (shot) connect(this.scene, this.catalogue, something, shot, 'props');
      last = shot;
    }
    const out = sceneOutOf(this.scene, this.catalogue);
    if (last && out && last !== out) connect(this.scene, this.catalogue, last, out, 'picture');
    if (out) this.scene.nodes[out].place = [(column + 3) * 200, 0];
  }
}

/** A small scene that shows what a kind does, made of the kind with its home values and something to work on. */
export function exampleOf(kind: Kind, catalogue: Catalogue = shipped): Scene {
  const maker = new ExampleMaker(kind.label, catalogue);
  const column = 3;
  if (kind.output === 'image' && kind.isSceneOut) {
    const out = sceneOutOf(maker.scene, catalogue)!;
    connect(maker.scene, catalogue, maker.add({ kind: 'clip' }, column), out, 'picture');
    return maker.scene;
  }
  const id = maker.add({ kind: kind.id, controls: kind.example?.controls }, column);
  maker.feed(id, catalogue.get(kind.id)!, column);
  maker.show(id, kind, column);
  return maker.scene;
}
