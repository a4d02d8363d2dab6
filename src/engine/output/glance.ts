import type { NodeRun } from '../../core/run/node-run';
import type { SceneRun } from '../../core/run/scene-run';
import { shortNumber } from '../../core/text/short-number';
import { limit, partName, partsOf, rangeOf } from '../../core/kind/controls';
import type { InstancesProp, Prop } from '../../core/kind/prop';
import type { BenchData, NodeGlance, PartGlance } from '../protocol/protocol';

const mostSamples = 64;
/** Lanes whose values are written on a card. */
const mostCaptioned = 3;
const mostPoints = 160;
const mostBenchSamples = 4096;
const mostBenchPoints = 20000;

/** A few numbers of each node that has no picture, for its card. */
export function glanceNodes(run: SceneRun, ids: readonly string[]): NodeGlance[] {
  const list: NodeGlance[] = [];
  for (const id of ids) {
    const node = run.runs.get(id);
    if (!node) continue;
    const base = { node: id, lanes: [], values: [], samples: new Float32Array(0), count: 0, caption: '' };
    if (node.given) {
      const { lanes, length } = node.given;
      const some = lanes.slice(0, mostCaptioned).map(({ name, samples }) => {
        const value = shortNumber(samples[0] ?? 0, 2);
        return lanes.length > 1 ? `${name} ${value}` : value;
      });
      if (length > 1) some.push(`·${length}`);
      list.push({
        ...base,
        kind: 'signal',
        lanes: lanes.map((lane) => lane.name),
        values: lanes.map((lane) => lane.samples[0] ?? 0),
        count: length,
        samples: lanes.length ? thin(lanes[0].samples, 1, mostSamples) : base.samples,
        caption: some.join('  '),
      });
    } else if (node.shape) {
      list.push({
        ...base,
        kind: 'shape',
        count: node.shape.count,
        samples: thin(node.shape.positions, 3, mostPoints),
        caption: `${node.shape.count} points`,
      });
    } else if (node.prop) {
      const count = node.prop.type === 'instances' ? node.prop.count : 1;
      list.push({
        ...base,
        kind: 'prop',
        count,
        caption: count > 1 ? `${count} copies` : aboutProp(node.prop),
        samples: thin(placesOf(node.prop, mostPoints) ?? base.samples, 3, mostPoints),
      });
    }
  }
  return list;
}

/** Points that show where a prop is: those of a body, or the places of up to `most` copies; null if only the GPU knows. */
function placesOf(prop: Prop, most: number): Float32Array | null {
  switch (prop.type) {
    case 'body':
      return prop.shape.positions;
    case 'instances':
      return placesOfCopies(prop, most);
    case 'light':
    case 'camera':
      return null;
  }
}

function placesOfCopies(prop: InstancesProp, most: number): Float32Array | null {
  const { on, place, count } = prop;
  if (on) return on.positions;
  if (place.every((lane) => lane.length <= 1)) return null;
  const shown = Math.min(count, most);
  const places = new Float32Array(3 * shown);
  for (let k = 0; k < shown; k++) {
    // Spread over all copies, so that a few stand for the whole.
    const i = Math.floor((k * count) / shown);
    place.forEach((lane, axis) => (places[3 * k + axis] = lane[lane.length > 1 ? i : 0]));
  }
  return places;
}

function aboutProp(prop: Prop): string {
  switch (prop.type) {
    case 'camera':
      return `from ${prop.place.map((v) => v.toFixed(2)).join('  ')}`;
    case 'light':
      return `${prop.shape} ${prop.strength.toFixed(2)}`;
    case 'body':
    case 'instances':
      return '';
  }
}

/** What is said of a node that has no numbers to show. */
function aboutEmpty({ prop, plan }: NodeRun): string {
  if (prop?.type === 'instances') return 'No copies yet.';
  if (prop) return 'A light or a camera shows in the Shot it is wired into.';
  const [first] = Object.values(plan.kind.inputs);
  return first && !plan.sources.length
    ? `Nothing is wired into ${first.label} yet.`
    : 'It gives nothing yet.';
}

/** Every k-th group of `width` numbers, so that at most `most` groups remain. */
function thin(numbers: Float32Array, width: number, most: number): Float32Array {
  const groups = numbers.length / width;
  if (groups <= most) return numbers.slice();
  const out = new Float32Array(most * width);
  for (let k = 0; k < most; k++) {
    const from = Math.floor((k * groups) / most) * width;
    for (let c = 0; c < width; c++) out[k * width + c] = numbers[from + c];
  }
  return out;
}

/** Live values of the driven controls of one node. */
export function glanceParts(run: SceneRun, id: string): PartGlance[] {
  const node = run.runs.get(id);
  if (!node) return [];
  const list: PartGlance[] = [];
  for (const [control, spec] of Object.entries(node.plan.kind.controls)) {
    for (const part of partsOf(spec)) {
      const name = partName(control, part);
      const driven = node.parts.get(name);
      if (!driven) continue;
      const [low, high] = rangeOf(spec);
      const asked = driven.samples[0] ?? 0;
      list.push({ part: name, value: limit(spec, asked), asked, low, high, samples: driven.samples.length });
    }
  }
  return list;
}

/** Everything the bench shows of a node, beside the picture of an image. */
export function benchData(run: SceneRun, id: string): BenchData | null {
  const node = run.runs.get(id);
  if (!node) return null;
  const empty: BenchData = {
    node: id,
    size: null,
    lanes: [],
    positions: null,
    lines: null,
    count: 0,
    about: aboutEmpty(node),
  };
  if (node.image) return { ...empty, size: [node.image.width, node.image.height] };
  if (node.given) {
    const lanes = node.given.lanes.map((lane) => ({
      name: lane.name,
      samples: lane.samples.slice(0, mostBenchSamples),
    }));
    return { ...empty, lanes, count: node.given.length };
  }
  if (node.prop?.type === 'instances') {
    const { count } = node.prop;
    return { ...empty, positions: placesOf(node.prop, mostBenchPoints), count };
  }
  const shape = node.shape ?? (node.prop?.type === 'body' ? node.prop.shape : null);
  if (!shape) return node.plan.kind.output === 'field' ? null : empty;
  const lines = new Uint32Array(shape.rows.length + shape.columns.length);
  lines.set(shape.rows);
  lines.set(shape.columns, shape.rows.length);
  return {
    ...empty,
    positions: shape.positions.slice(0, 3 * mostBenchPoints),
    lines: shape.count <= mostBenchPoints ? lines : null,
    count: shape.count,
  };
}
