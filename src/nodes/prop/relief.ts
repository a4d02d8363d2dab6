import { choice, colour, number, whole } from '../../core/kind/controls';
import { propKind } from '../../core/kind/kind';
import { plainLook, type BodyProp } from '../../core/kind/prop';
import { sheetShape } from '../../core/shape/make';
import type { Shape } from '../../core/shape/shape';

const sheets = new Map<string, Shape>();
const mostKept = 6;

/** A sheet as high as 1; the same one each time, so that it is sent to the GPU once. */
function sheetOf(aspect: number, columns: number, rows: number): Shape {
  const key = `${aspect} ${columns} ${rows}`;
  let sheet = sheets.get(key);
  if (!sheet) {
    if (sheets.size >= mostKept) sheets.clear();
    sheets.set(key, (sheet = sheetShape(aspect, 1, columns, rows)));
  }
  return sheet;
}

export default propKind({
  id: 'relief',
  label: 'Relief',
  summary:
    'A picture in space: a sheet of points, lines or surface in its colours, lifted by its brightness.',
  words: ['picture to points', 'depth', 'height', 'point cloud', 'terrain', 'lift', '3d picture', 'scan'],
  inputs: {
    picture: {
      label: 'Picture',
      help: 'Gives the colours, and the lift if nothing else does.',
      carries: 'image',
      reads: 'many',
    },
    lift: {
      label: 'Lift',
      help: 'Its brightness lifts instead of that of the picture.',
      carries: 'image',
      reads: 'many',
    },
    liftBy: {
      label: 'Lift times',
      help: 'An image that the lift is multiplied with.',
      carries: 'image',
      reads: 'many',
    },
  },
  controls: {
    draw: choice({
      label: 'Draw',
      help: 'How the sheet is drawn.',
      options: {
        points: 'Points',
        rows: 'Lines across',
        columns: 'Lines up',
        both: 'A net',
        surface: 'Surface',
      },
      default: 'points',
    }),
    columns: whole({
      label: 'Columns',
      help: 'Points across.',
      default: 192,
      range: [16, 512],
      min: 2,
      max: 1024,
    }),
    rows: whole({ label: 'Rows', help: 'Points up.', default: 108, range: [16, 512], min: 2, max: 1024 }),
    depth: number({
      label: 'Depth',
      help: 'How far full brightness comes out.',
      default: 0.35,
      range: [-0.6, 0.6],
    }),
    middle: number({
      label: 'Middle',
      help: 'The brightness that stays in the plane.',
      default: 0,
      range: [0, 1],
    }),
    tint: colour({
      label: 'Tint',
      help: 'Multiplied with the colours of the picture.',
      default: [1, 1, 1, 1],
    }),
    blending: choice({
      label: 'Blending',
      help: 'Over what lies behind, or added to it.',
      options: { over: 'Over', add: 'Add' },
      default: 'add',
    }),
    size: number({
      label: 'Point size',
      help: 'Diameter, in scene units.',
      default: 0.006,
      range: [0.001, 0.03],
      min: 0,
      shownIf: (c) => c.draw === 'points',
    }),
    width: number({
      label: 'Line width',
      help: 'In pixels of the canvas.',
      default: 1.5,
      range: [0.5, 8],
      min: 0,
      max: 200,
      unit: 'px',
      shownIf: (c) => c.draw !== 'points' && c.draw !== 'surface',
    }),
  },
  describe({ controls: c, inputs }): BodyProp | null {
    const { picture } = inputs;
    const lift = inputs.lift ?? picture;
    if (!lift) return null;
    const aspect = (picture ?? lift).width / (picture ?? lift).height;
    const lines = c.draw === 'rows' || c.draw === 'columns' || c.draw === 'both';
    return {
      type: 'body',
      node: '',
      shape: sheetOf(Math.round(aspect * 1000) / 1000, c.columns, c.rows),
      look: {
        ...plainLook,
        draw: lines ? 'lines' : c.draw === 'surface' ? 'surface' : 'points',
        lines: lines ? (c.draw as 'rows' | 'columns' | 'both') : 'both',
        shading: 'flat',
        blending: c.blending,
        colour: c.tint,
        picture,
        lift: { image: lift, by: inputs.liftBy, depth: c.depth, middle: c.middle, along: 'z' },
        widthPx: c.width,
        leastWidthPx: 0.5,
        pointSize: c.size,
        solid: c.blending === 'over',
        casts: false,
      },
    };
  },
});
