import { sceneOutOf } from '../core/patch/plan';
import type { InputSpec, Kind } from '../core/kind/kind';
import { makeScene } from '../core/show/create';
import { addNode, connect, EditError, setFormula } from '../core/show/edit';
import type { ControlValue, Scene } from '../core/document/types';
import { catalogue } from './catalogue';

/** A node that an example is fed by. */
interface Feed {
  kind: string;
  controls?: Record<string, ControlValue>;
}

/** What examples are fed by, where an input's name says what it is for; else by what it carries. */
const feeds: Readonly<Record<string, Feed>> = {
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

const byCarried: Readonly<Record<InputSpec['carries'], Feed>> = {
  image: { kind: 'picture', controls: { file: 'shipped:wax-pane.webp', fit: 'cover' } },
  signal: { kind: 'oscillator', controls: { rate: 0.5 } },
  shape: { kind: 'ball' },
  prop: { kind: 'body' },
  field: { kind: 'field-box' },
};

/** Kinds whose effect is seen on something else than the usual picture or wave. */
const otherFeed: Readonly<Record<string, Feed>> = {
  rearrange: { kind: 'scatter' },
  resample: { kind: 'scatter', controls: { samples: 5 } },
  'pick-lanes': { kind: 'scatter' },
  steps: { kind: 'number-line' },
  remap: { kind: 'number-line' },
  'shape-by-curve': { kind: 'number-line', controls: { samples: 24 } },
  envelope: { kind: 'beat-clock', controls: { gives: 'hit' } },
  crossing: { kind: 'oscillator', controls: { samples: 12, spread: 0.5, rate: 0.5 } },
  smooth: { kind: 'random-walk', controls: { samples: 12, smooth: false, step: 1 } },

  strands: { kind: 'torus' },
  struts: { kind: 'polyhedron', controls: { solid: 'truncatedIcosahedron' } },
  panels: { kind: 'polyhedron', controls: { solid: 'truncatedIcosahedron' } },
  extrude: { kind: 'ring', controls: { inner: 0.5, points: 6 } },
  twist: { kind: 'box', controls: { size: [0.3, 0.9, 0.3], divisions: 16 } },
  bend: { kind: 'box', controls: { size: [0.2, 0.9, 0.3], divisions: 16 } },
  taper: { kind: 'box', controls: { size: [0.5, 0.8, 0.5], divisions: 16 } },
  stack: { kind: 'box', controls: { size: [0.6, 0.05, 0.2] } },
  loft: { kind: 'strands', controls: { which: 'rows' } },
  'resample-curve': { kind: 'ring', controls: { points: 5 } },
  'order-points': { kind: 'point-grid' },
  'edit-points': { kind: 'torus' },
  edges: { kind: 'flat-shape', controls: { form: 'star', size: [0.7, 0.7], fill: [1, 1, 1, 1] } },
  glow: { kind: 'beam', controls: { form: 'star', halo: 0, core: 0.03 } },
  'frame-store': { kind: 'clip' },
  blur: { kind: 'lattice', controls: { form: 'boxes', cells: [6, 6], part: 0.6 } },
  'corner-pin': { kind: 'lattice', controls: { cells: [8, 8] } },
  mirror: { kind: 'clip' },
  'gradient-map': { kind: 'noise' },
  steepness: { kind: 'noise', controls: { octaves: 1 } },
  'polar-wrap': { kind: 'stripes' },
  tone: { kind: 'beam', controls: { form: 'ring', halo: 2 } },
};

/** Controls of the shown node that differ from its home, so that its effect is seen at once. */
const shown: Readonly<Record<string, Record<string, ControlValue>>> = {
  transform: { scale: 0.5, turn: 20, outside: 'mirror' },
  'corner-pin': { upperLeft: [0.4, -0.15], upperRight: [-0.3, -0.05] },
  'hue-saturation': { hue: 150 },
  levels: { contrast: 1.8 },
  blur: { radius: 0.06 },
  glow: { strength: 2.5, threshold: 0.2 },
  resize: { share: 0.06, reading: 'crisp' },
  'frame-store': { back: 0, depth: 60 },
  beam: { motion: 'run', lit: [0, 0.5], form: 'polygon', taper: 0.3 },
  'channel-swap': { red: 'blue', blue: 'red' },
  oscillator: { samples: 24, spread: 1 },
  drift: { samples: 24 },
  'random-walk': { samples: 24 },
  'beat-clock': { periods: [1, 2, 4, 8] },
  rearrange: { order: 'rising' },
  panels: { depth: 0.05, push: 0.05 },
  stack: { count: 14, turn: [0, 14, 0], move: [0, 0.06, 0] },
  struts: { width: 0.02 },
  twist: { turn: 120 },
  push: { octaves: 3, speed: 0.3 },
  gather: { place: [0.4, 0.3, 0.2], strength: 0.8, radius: 0.5 },
  instances: { size: 0.12, growth: 'bottom', facing: 'normal' },
  'edit-points': { how: 'scale', amount: 0.4 },
  'field-repeat': { spacing: [0.4, 0.4, 0] },
  'field-round': { radius: 0.08 },
};

class ExampleMaker {
  readonly scene: Scene;
  private readonly columns = [0, 0, 0, 0, 0, 0, 0, 0];

  constructor(name: string) {
    this.scene = makeScene(catalogue, 'example', name);
  }

  add(feed: Feed, column: number): string {
    const id = addNode(this.scene, catalogue, feed.kind, [column * 200, this.columns[column]++ * 170]);
    for (const [control, value] of Object.entries(feed.controls ?? {}))
      if (Object.hasOwn(this.scene.nodes[id].controls, control))
        this.scene.nodes[id].controls[control] = value;
    return id;
  }

  /** Wires something into each input of a node, and into theirs. */
  feed(id: string, kind: Kind, column: number): void {
    const [first] = Object.keys(kind.inputs);
    for (const [port, spec] of Object.entries(kind.inputs)) {
      const special = port === first ? (otherFeed[kind.id] ?? feeds[port]) : feeds[port];
      const source = special ?? byCarried[spec.carries];
      const from = this.add(source, column - 1);
      const sourceKind = catalogue.get(source.kind)!;
      if (column > 1) this.feed(from, sourceKind, column - 1);
      connect(this.scene, catalogue, from, id, port);
    }
  }

  private tryWire(from: string, kind: string, port: string, column: number): string | null {
    const to = this.add({ kind }, column);
    try {
      connect(this.scene, catalogue, from, to, port);
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
      connect(this.scene, catalogue, id, row, 'place.y');
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
      this.feed(something, catalogue.get('body')!, column - 1);
      if (shot) connect(this.scene, catalogue, something, shot, 'props');
      last = shot;
    }
    const out = sceneOutOf(this.scene, catalogue);
    if (last && out && last !== out) connect(this.scene, catalogue, last, out, 'picture');
    if (out) this.scene.nodes[out].place = [(column + 3) * 200, 0];
  }
}

/** A small scene that shows what a kind does, made of the kind with its home values and something to work on. */
export function exampleOf(kind: Kind): Scene {
  const maker = new ExampleMaker(kind.label);
  const column = 3;
  if (kind.output === 'image' && kind.isSceneOut) {
    const out = sceneOutOf(maker.scene, catalogue)!;
    connect(maker.scene, catalogue, maker.add({ kind: 'clip' }, column), out, 'picture');
    return maker.scene;
  }
  const id = maker.add({ kind: kind.id, controls: shown[kind.id] }, column);
  maker.feed(id, catalogue.get(kind.id)!, column);
  maker.show(id, kind, column);
  return maker.scene;
}
