import { choice, file, number, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { anchor, anchored } from '../shared/anchor';
import { boundsOf } from '../../core/shape/measure';
import { emptyShape, joinShapes, placeShape, type Shape } from '../../core/shape/shape';

/** Centred, and scaled so that its longest side is `size`; a size of 0 leaves it as large as it came. */
function fitted(shape: Shape, size: number): Shape {
  const bounds = boundsOf(shape);
  if (!bounds) return shape;
  const { low, high } = bounds;
  const longest = Math.max(...high.map((v, k) => v - low[k]));
  const scale = size > 0 && longest > 0 ? size / longest : 1;
  return placeShape(
    shape,
    high.map((v, k) => (-(v + low[k]) / 2) * scale),
    [0, 0, 0],
    [scale, scale, scale],
  );
}

export default shapeKind({
  id: 'model',
  label: 'Model',
  summary: 'A shape from a file: GLB, glTF, OBJ, PLY or STL, with its colours and its pictures.',
  words: ['glb', 'gltf', 'obj', 'ply', 'stl', 'mesh', 'import', 'scan', 'file', '3d model'],
  inputs: {},
  awaits: true,
  controls: {
    file: file({
      label: 'File',
      help: 'A file of the show, one that ships, or one from the disk.',
      default: 'shipped:skep.glb',
      accepts: 'model',
    }),
    part: whole({
      label: 'Part',
      help: 'One of its parts, counted from 1; 0 takes all.',
      default: 0,
      range: [0, 16],
      min: 0,
      max: 10000,
    }),
    scale: choice({
      label: 'Scale',
      help: 'Fitted to a size, whatever unit it was made in, or as large as it comes.',
      options: { fit: 'Fitted to size', own: 'As it comes' },
      default: 'fit',
    }),
    size: number({
      label: 'Size',
      help: 'Its longest side.',
      default: 0.8,
      range: [0.1, 2],
      min: 0.0001,
      shownIf: (c) => c.scale === 'fit',
    }),
    anchor,
  },
  make({ controls: c, model, remark }) {
    if (!c.file) {
      remark?.('No file is chosen.');
      return emptyShape;
    }
    const found = model?.(c.file);
    if (!found) return null;
    const { parts, notes } = found;
    const chosen = c.part > 0 ? parts.slice(c.part - 1, c.part) : parts;
    if (chosen.length === 0) throw new Error(`The model has ${parts.length} parts, but no part ${c.part}.`);
    if (notes.length) remark?.(notes.join(' '));
    const shape = joinShapes(
      chosen.map((part) =>
        part.picture === null ? part.shape : { ...part.shape, pictures: [`${c.file}#${part.picture}`] },
      ),
    );
    return anchored(fitted(shape, c.scale === 'fit' ? c.size : 0), c.anchor);
  },
});
