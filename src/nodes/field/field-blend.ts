import { choice, number } from '../../core/kind/controls';
import { fieldKind } from '../../core/kind/kind';
import { joinGlsl, roundingOf } from '../glsl/field';

export default fieldKind({
  id: 'field-blend',
  label: 'Field Blend',
  summary:
    'Joins any number of fields: together, melting into each other, cut away, or what they have in common.',
  words: ['union', 'smooth union', 'melt', 'merge', 'subtract', 'cut', 'intersect', 'boolean', 'metaballs'],
  inputs: {
    fields: { label: 'Fields', help: 'Any number; the first is what is cut.', carries: 'field', many: true },
  },
  controls: {
    how: choice({
      label: 'How',
      help: 'Together, the first without the others, or what all have in common.',
      options: { union: 'Together', cut: 'Cut away', common: 'In common' },
      default: 'union',
    }),
    soft: number({
      label: 'Melting',
      help: 'How far from each other they begin to melt together; 0 is sharp.',
      default: 0.12,
      range: [0, 0.5],
      min: 0,
    }),
  },
  helpers: [joinGlsl],
  derived: { round: 'vec2' },
  derive: ({ soft }) => ({ round: roundingOf(soft) }),
  field: {
    type: 'join',
    join: `return $how == 0 ? joinSoft(a, b, $round) : $how == 1 ? cutSoft(a, b, $round) : commonSoft(a, b, $round);`,
  },
});
