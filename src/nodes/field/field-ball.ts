import { number } from '../../core/kind/controls';
import { fieldLook } from '../../core/kind/field-look';
import { fieldKind } from '../../core/kind/kind';

export default fieldKind({
  id: 'field-ball',
  label: 'Field Ball',
  summary: 'A ball as a distance field, that can melt into others.',
  words: ['sphere', 'metaball', 'drop', 'blob', 'sdf', 'distance field'],
  inputs: {},
  controls: {
    radius: number({ label: 'Radius', help: 'From its middle.', default: 0.3, range: [0, 1], min: 0 }),
    ...fieldLook,
  },
  field: { type: 'solid', distance: `return length(p) - $radius;` },
});
