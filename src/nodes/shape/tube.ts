import { choice, number, toggle, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { tubeShape } from '../../core/shape/make';
import { placeShape } from '../../core/shape/shape';

export default shapeKind({
  id: 'tube',
  label: 'Tube',
  summary: 'A cylinder, cone or prism, open or closed.',
  words: ['cylinder', 'cone', 'prism', 'hexagon', 'pillar', 'pipe', 'column', 'comb cell'],
  inputs: {},
  controls: {
    size: number({ label: 'Size', help: 'Diameter.', default: 0.5, range: [0, 2], min: 0 }),
    height: number({ label: 'Height', help: 'From end to end.', default: 0.7, range: [0, 2], min: 0 }),
    top: number({
      label: 'Top',
      help: 'Size of the upper end as a share of the lower: 0 makes a cone.',
      default: 1,
      range: [0, 2],
      min: 0,
    }),
    segments: whole({
      label: 'Segments',
      help: 'Cells around; six with sharp edges make the prism of a comb.',
      default: 48,
      range: [3, 64],
      min: 3,
      max: 1024,
    }),
    sharp: toggle({ label: 'Sharp edges', help: 'Each side is flat.', default: false }),
    caps: toggle({ label: 'Closed', help: 'Both ends have faces.', default: true }),
    axis: choice({
      label: 'Along',
      help: 'Upright, or toward the viewer.',
      options: { y: 'Upright', z: 'To the front' },
      default: 'y',
    }),
    anchor: choice({
      label: 'Anchor',
      help: 'What stays in its place when it is scaled: its middle, its foot or its top.',
      options: { middle: 'Middle', foot: 'Foot', top: 'Top' },
      default: 'middle',
    }),
  },
  make({ controls: c }) {
    const shape = tubeShape([c.size / 2, (c.size / 2) * c.top], c.height, c.segments, c.caps, c.sharp);
    const up = c.anchor === 'foot' ? c.height / 2 : c.anchor === 'top' ? -c.height / 2 : 0;
    const raised = placeShape(shape, [0, up, 0], [0, 0, 0], [1, 1, 1]);
    return c.axis === 'y' ? raised : placeShape(raised, [0, 0, 0], [Math.PI / 2, 0, 0], [1, 1, 1]);
  },
});
