import { choice, number, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { anchor, anchored } from '../shared/anchor';
import { solidNames, solidShape } from '../../core/shape/solids';

export default shapeKind({
  id: 'polyhedron',
  label: 'Polyhedron',
  summary: 'A solid with flat faces: the five regular ones, and more that are nearly so.',
  words: ['tetrahedron', 'icosahedron', 'dodecahedron', 'octahedron', 'crystal', 'gem', 'solid', 'geodesic'],
  inputs: {},
  controls: {
    solid: choice({ label: 'Solid', help: 'Which one.', options: solidNames, default: 'icosahedron' }),
    size: number({
      label: 'Size',
      help: 'Diameter of the ball its corners lie on.',
      default: 0.8,
      range: [0, 2],
      min: 0,
    }),
    divisions: whole({
      label: 'Divisions',
      help: 'Cuts every face into smaller triangles.',
      default: 1,
      range: [1, 12],
      min: 1,
      max: 48,
    }),
    round: number({
      label: 'Round',
      help: 'Blows it up to a ball: with a few divisions, a dome of triangles.',
      default: 0,
      range: [0, 1],
      min: 0,
      max: 1,
    }),
    anchor,
  },
  make: ({ controls: c }) => anchored(solidShape(c.solid, c.size / 2, c.divisions, c.round), c.anchor),
});
