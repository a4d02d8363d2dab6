import { choice, toggle, vector, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { scatterPoints } from '../../core/shape/scatter';

export default shapeKind({
  id: 'point-scatter',
  label: 'Point Scatter',
  summary: 'Random points in a volume or on the faces of a shape, evenly apart if wanted.',
  words: [
    'random',
    'spray',
    'sow',
    'cloud',
    'surface points',
    'blue noise',
    'sprinkle',
    'dust',
    'stars',
    'particles',
    'random places',
  ],
  inputs: { on: { label: 'On', help: 'Points are strewn over the faces of this shape.', carries: 'shape' } },
  controls: {
    form: choice({
      label: 'Where',
      help: 'In a volume, or on the faces of what is wired in.',
      options: { surface: 'On the shape', box: 'In a box', ball: 'In a ball', disc: 'In a disc' },
      default: 'surface',
    }),
    points: whole({
      label: 'Points',
      help: 'How many.',
      default: 400,
      range: [1, 5000],
      min: 1,
      max: 200000,
    }),
    size: vector({
      label: 'Size',
      help: 'Width, height and depth of the volume.',
      default: [1, 1, 1],
      range: [0, 2],
      min: 0,
    }),
    even: toggle({
      label: 'Evenly apart',
      help: 'Points keep their distance (blue noise); slower with many thousands.',
      default: false,
    }),
    seed: whole({ label: 'Seed', help: 'Other points.', default: 1, range: [1, 99] }),
  },
  make({ controls: c, inputs, remark }) {
    // Without a shape its faces cannot be strewn: a ball stands in, so that there is something to see.
    const form = c.form === 'surface' && !inputs.on ? 'ball' : c.form;
    if (form !== c.form) remark?.('Nothing is wired into On: the points fill a ball.');
    else if (form === 'surface' && !inputs.on?.triangles.length)
      remark?.('The shape has no faces to stand on.');
    return scatterPoints(form, c.size, inputs.on, c.points, c.even, c.seed);
  },
});
