import { assertNever } from '../assert-never';
import { listAt, passThroughOf } from '../kind/kind';
import {
  bodyOf,
  defaultCamera,
  levelsOf,
  sortProps,
  type CameraProp,
  type InstancesProp,
  type Prop,
  type BodyProp,
} from '../kind/prop';
import { boundsOf } from '../shape/measure';
import type { Rgba } from '../document/types';
import type { PlanNode } from '../patch/plan';
import type { NodeRun } from './node-run';
import type { SceneRun } from './scene-run';

/** Why a picture may be dark: one sentence about one node. */
export interface DarkReason {
  node: string;
  sentence: string;
}

/** Controls that make everything dark where they are 0, by name. */
const factors = [
  'size',
  'scale',
  'stretch',
  'strength',
  'exposure',
  'opacity',
  'brightness',
  'amplitude',
  'level',
  'gain',
  'light',
];
/** Points that are looked at of a shape: enough to know where it is. */
const mostLooked = 4096;

/**
 * What can be known of a dark picture without looking at its pixels: what is missing, what is multiplied by 0, what stands
 * where no camera looks. From the scene's picture upward, nearest first.
 */
export function whyDark(run: SceneRun, out: string | null, aspect: number): DarkReason[] {
  const reasons: DarkReason[] = [];
  if (!out) return [{ node: '', sentence: 'The scene has no Scene Out: nothing of it is shown.' }];
  const seen = new Set<string>();
  const queue = [out];
  while (queue.length) {
    const id = queue.shift()!;
    const node = run.runs.get(id);
    if (seen.has(id) || !node) continue;
    seen.add(id);
    const say = (sentence: string): void => void reasons.push({ node: id, sentence });
    const fault = node.fault;
    if (fault) say(fault);
    missing(node.plan, say);
    zeros(node, say);
    if (node.given) numbers(node, say);
    if (node.shape) points(node.shape.positions, say);
    if (node.prop) prop(node.prop, say);
    if (node.plan.kind.output === 'image' && node.plan.kind.paint.type === 'shot')
      shot(listAt<'prop'>(run.inputsOf(id), 'props'), node.plan.inputs.props.length, aspect, say);
    for (const source of node.plan.sources) queue.push(source.node);
  }
  return reasons;
}

function missing({ kind, inputs }: PlanNode, say: (sentence: string) => void): void {
  if (kind.output === 'signal') return;
  // What a node works on is its first input of the sort that it gives; a made thing needs none.
  const main =
    passThroughOf(kind) ??
    (kind.output === 'prop' && kind.inputs.shape ? 'shape' : null) ??
    Object.keys(kind.inputs).find((name) => kind.inputs[name].many) ??
    null;
  if (main && inputs[main].length === 0 && !kind.inputs[main].optional)
    say(`Nothing is wired into ${kind.inputs[main].label}.`);
}

function zeros(run: NodeRun, say: (sentence: string) => void): void {
  for (const [name, spec] of Object.entries(run.plan.kind.controls)) {
    if (spec.shownIf && !spec.shownIf(run.node.controls)) continue;
    const value = run.controls[name];
    if (spec.type === 'colour' && spec.default[3] > 0) {
      // A colour, or one list of samples for each of its parts.
      const last = (value as Rgba | readonly Float32Array[])[3];
      const alpha = typeof last === 'number' ? [last] : last;
      if (alpha.length && Array.from(alpha).every((a) => a === 0)) say(`The alpha of ${spec.label} is 0.`);
      continue;
    }
    if (!factors.includes(name) || !('default' in spec)) continue;
    const parts = Array.isArray(value) ? value : [value];
    const isZero = (v: unknown): boolean =>
      v instanceof Float32Array ? v.length > 0 && v.every((k) => k === 0) : v === 0;
    if (spec.default !== 0 && parts.some(isZero)) say(`${spec.label} is 0: everything is multiplied by it.`);
  }
}

function numbers(run: NodeRun, say: (sentence: string) => void): void {
  const bad = run.given!.lanes.find(({ samples }) => !samples.every(Number.isFinite));
  if (bad) say(`Lane ${bad.name} has values that are not numbers.`);
}

function points(positions: Float32Array, say: (sentence: string) => void): void {
  if (positions.length === 0) say('The shape has no points.');
  else if (!positions.every(Number.isFinite)) say('The shape has points that are not numbers.');
}

function body({ shape, look }: BodyProp, say: (sentence: string) => void): void {
  if (shape.count > 0 && look.draw === 'surface' && shape.triangles.length === 0)
    say('The shape has no faces: draw its lines or points instead.');
  if (
    shape.count > 0 &&
    look.draw === 'lines' &&
    shape.rows.length + shape.columns.length + shape.triangles.length === 0
  )
    say('The shape has no lines: draw its points instead.');
  if (look.draw === 'points' && look.pointSize === 0) say('The points have no size.');
}

function prop(of: Prop, say: (sentence: string) => void): void {
  switch (of.type) {
    case 'body':
      body(of, say);
      break;
    case 'instances':
      copies(of, say);
      break;
    case 'light':
      if (of.strength === 0) say('The light has no strength.');
      break;
    case 'camera':
      break;
    default:
      assertNever(of);
  }
}

function copies(of: InstancesProp, say: (sentence: string) => void): void {
  if (of.count === 0) {
    say('There are no copies: the shape they stand on has no points.');
    return;
  }
  if (of.count === 1) return;
  const one = of.place.every((lane) => lane.length <= 1 || lane.every((v) => v === lane[0]));
  const spread = of.on && of.on.count > 1;
  const pixels = of.pixels && (of.pixels.mode === 'places' || of.pixels.rows[0] >= 0);
  if (!one || spread || pixels) return;
  const single = of.place.every((lane) => lane.length <= 1);
  say(
    single
      ? `All ${of.count} copies stand in one place: Place has one sample where ${of.count} are needed. Wire in a signal with more, a shape into On, or choose a Layout.`
      : `All ${of.count} copies stand in one place.`,
  );
}

type Vec = readonly number[];
const sub = (a: Vec, b: Vec): number[] => a.map((v, k) => v - b[k]);
const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const cross = (a: Vec, b: Vec): number[] => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const unit = (v: Vec): number[] => v.map((k) => k / (Math.hypot(...v) || 1));

/** Whether a camera sees a place, `size`: of what stands there. */
export function seesPlace(camera: CameraProp, aspect: number, place: Vec, size = 0): boolean {
  const along = unit(sub(camera.lookAt, camera.place));
  const up = Math.abs(along[1]) > 0.99999 ? [0, 0, 1] : [0, 1, 0];
  const right = unit(cross(along, up));
  const top = cross(right, along);
  const to = sub(place, camera.place);
  const away = dot(to, along);
  if (away + size < camera.near || away - size > camera.far) return false;
  const half =
    camera.projection === 'straight'
      ? camera.viewHeight / 2
      : Math.max(0, away) * Math.tan(camera.fieldOfViewRad / 2);
  // A roll moves the corners: the circle around the picture is asked instead of its sides.
  const reach = camera.rollRad ? Math.hypot(half, half * aspect) : 0;
  return (
    Math.abs(dot(to, right)) <= Math.max(reach, half * aspect) + size &&
    Math.abs(dot(to, top)) <= Math.max(reach, half) + size
  );
}

/** Places where a body or its copies stand, as far as the processor knows, and how large one of them is. */
function placesOf(of: BodyProp | InstancesProp): { places: number[][]; size: number } | null {
  const body = bodyOf(of);
  const bounds = boundsOf(body.shape);
  if (!bounds) return { places: [], size: 0 };
  const size = Math.hypot(...bounds.high.map((v, k) => Math.max(Math.abs(v), Math.abs(bounds.low[k]))));
  if (of.type === 'body') {
    const { positions } = of.shape;
    const step = Math.max(1, Math.floor(positions.length / 3 / mostLooked));
    const places: number[][] = [];
    for (let i = 0; i < positions.length / 3; i += step)
      places.push([...positions.subarray(3 * i, 3 * i + 3)]);
    // The middle of the box stands for faces that are larger than the picture.
    places.push(bounds.low.map((v, k) => (v + bounds.high[k]) / 2));
    return { places, size: 0 };
  }
  if (levelsOf(of).length > 1 || of.pixels?.mode === 'places' || (of.pixels?.rows[0] ?? -1) >= 0) return null;
  const at = (lane: Float32Array, i: number): number => lane[lane.length > 1 ? i : 0] ?? 0;
  const step = Math.max(1, Math.floor(of.count / mostLooked));
  const places: number[][] = [];
  for (let i = 0; i < of.count; i += step) {
    const on = of.on?.count ? Math.min(of.on.count - 1, Math.floor((i * of.on.count) / of.count)) : -1;
    places.push([0, 1, 2].map((k) => at(of.place[k], i) + (on >= 0 ? of.on!.positions[3 * on + k] : 0)));
  }
  const largest = Math.max(
    ...of.size.map((lane) => lane.reduce((most, v) => Math.max(most, Math.abs(v)), 0)),
  );
  const scale = of.scale.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
  return { places, size: size * largest * scale };
}

function shot(props: readonly Prop[], wires: number, aspect: number, say: (sentence: string) => void): void {
  const { bodies, lights, camera: wiredCamera } = sortProps(props);
  // A wire that brings nothing has its reason further up.
  if (props.length > 0 && bodies.length === 0 && wires === props.length)
    say('There is no body before the camera.');
  const lit = bodies.some((b) => bodyOf(b).look.shading === 'lit' && bodyOf(b).look.ownLight === 0);
  if (
    lit &&
    lights.length > 0 &&
    lights.every(({ strength, colour }) => strength === 0 || colour[0] + colour[1] + colour[2] === 0)
  )
    say('All lights are dark.');
  const camera = wiredCamera ?? defaultCamera;
  const known = bodies.map(placesOf);
  const some = known.some((k) => k !== null && k.places.length > 0);
  if (
    some &&
    known.every((k) => k !== null && !k.places.some((place) => seesPlace(camera, aspect, place, k.size)))
  )
    say('Everything stands outside of the camera’s view.');
  for (const body of bodies) {
    if (body.type !== 'body' || !body.look.solid || body.look.draw !== 'surface') continue;
    const bounds = boundsOf(body.shape);
    const flat = bounds?.high.some((v, k) => v - bounds.low[k] < 1e-6) ?? true;
    if (bounds && !flat && camera.place.every((v, k) => v > bounds.low[k] && v < bounds.high[k]))
      say('The camera stands inside a body.');
  }
}
