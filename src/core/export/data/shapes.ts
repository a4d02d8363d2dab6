import type { Shape } from '../../shape/shape';

const figure = (value: number): string => String(Number(value.toPrecision(7)));

const triples = (numbers: Float32Array | Uint32Array, at: number): string =>
  `${figure(numbers[3 * at])} ${figure(numbers[3 * at + 1])} ${figure(numbers[3 * at + 2])}`;

/** A shape as Wavefront OBJ: points with their colours, normals, places on a picture, faces and lines. */
export function shapeObj({
  count,
  positions,
  normals,
  uvs,
  colours,
  triangles,
  rows,
  columns,
}: Shape): string {
  const lines: string[] = [];
  for (let k = 0; k < count; k++) {
    const tint = colours ? ` ${[0, 1, 2].map((c) => figure(colours[4 * k + c])).join(' ')}` : '';
    lines.push(`v ${triples(positions, k)}${tint}`);
  }
  for (let k = 0; k < count; k++) lines.push(`vt ${figure(uvs[2 * k])} ${figure(uvs[2 * k + 1])}`);
  for (let k = 0; k < count; k++) lines.push(`vn ${triples(normals, k)}`);
  const corner = (point: number): string => `${point + 1}/${point + 1}/${point + 1}`;
  for (let k = 0; k < triangles.length; k += 3)
    lines.push(`f ${corner(triangles[k])} ${corner(triangles[k + 1])} ${corner(triangles[k + 2])}`);
  const isBare = triangles.length === 0;
  for (const pairs of isBare ? [rows, columns] : [])
    for (let k = 0; k < pairs.length; k += 2) lines.push(`l ${pairs[k] + 1} ${pairs[k + 1] + 1}`);
  if (isBare && rows.length + columns.length === 0) for (let k = 0; k < count; k++) lines.push(`p ${k + 1}`);
  return `${lines.join('\n')}\n`;
}

/** A shape as PLY (Stanford polygon format, ascii): points with normals and colours, and faces. */
export function shapePly({ count, positions, normals, colours, triangles }: Shape): string {
  const faces = triangles.length / 3;
  const floats = ['x', 'y', 'z', 'nx', 'ny', 'nz'].map((name) => `property float ${name}`);
  const tints = colours ? ['red', 'green', 'blue', 'alpha'].map((name) => `property uchar ${name}`) : [];
  const head = [
    'ply',
    'format ascii 1.0',
    `element vertex ${count}`,
    ...floats,
    ...tints,
    `element face ${faces}`,
    'property list uchar int vertex_indices',
    'end_header',
  ];
  const byte = (value: number): number => Math.round(Math.min(1, Math.max(0, value)) * 255);
  const points = Array.from({ length: count }, (_, k) => {
    const tint = colours ? ` ${[0, 1, 2, 3].map((c) => byte(colours[4 * k + c])).join(' ')}` : '';
    return `${triples(positions, k)} ${triples(normals, k)}${tint}`;
  });
  const corners = Array.from(
    { length: faces },
    (_, k) => `3 ${triangles[3 * k]} ${triangles[3 * k + 1]} ${triangles[3 * k + 2]}`,
  );
  return `${[...head, ...points, ...corners].join('\n')}\n`;
}
