import { number, vector } from '../../core/kind/controls';
import { fieldKind, mostListed } from '../../core/kind/kind';
import { joinGlsl, roundingOf } from '../glsl/field';

export default fieldKind({
  id: 'field-copies',
  label: 'Field Swarm',
  summary: 'A field many times, wherever numbers say, melting into each other.',
  words: ['instances', 'duplicate', 'many', 'drops', 'swarm', 'metaballs', 'clone by signal'],
  inputs: { field: { label: 'Field', help: 'What is copied.', carries: 'field' } },
  controls: {
    place: vector({
      label: 'Place',
      help: 'Where each copy is; as many copies as samples, 64 at most.',
      default: [0, 0, 0],
      range: [-0.5, 0.5],
      many: true,
    }),
    size: number({ label: 'Size', help: 'Scale of each copy.', default: 1, range: [0, 2], many: true }),
    soft: number({
      label: 'Melting',
      help: 'How far from each other they begin to melt together; 0 is sharp.',
      default: 0.12,
      range: [0, 0.5],
      min: 0,
    }),
  },
  countOf: (_c, _inputs, longest) => Math.min(mostListed, longest),
  helpers: [joinGlsl],
  derived: { list: 'vec4list', count: 'float', round: 'vec2' },
  derive({ place, size, soft }) {
    const count = Math.min(mostListed, Math.max(size.length, ...place.map((lane) => lane.length)));
    const list = new Float32Array(4 * mostListed);
    const at = (lane: Float32Array, i: number): number => lane[lane.length > 1 ? i : 0] ?? 0;
    for (let i = 0; i < count; i++)
      list.set([at(place[0], i), at(place[1], i), at(place[2], i), Math.max(1e-4, at(size, i))], 4 * i);
    return { list, count, round: roundingOf(soft) };
  },
  field: {
    type: 'copies',
    place: 'return (p - $list[i].xyz) / $list[i].w;',
    distance: 'return d * $list[i].w;',
    join: 'return joinSoft(a, b, $round);',
  },
});
