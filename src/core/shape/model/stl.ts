import { MeshList } from './mesh-list';
import { checkTriangles, ModelError, type Model } from './model';

/** Reads an STL file, binary or text. Each triangle has points and a normal of its own. */
export function readStl(bytes: Uint8Array): Model {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const said = bytes.length >= 84 ? view.getUint32(80, true) : -1;
  const list = new MeshList();
  if (said >= 0 && bytes.length === 84 + 50 * said) {
    checkTriangles(said);
    for (let t = 0; t < said; t++) {
      const at = 84 + 50 * t;
      const value = (k: number): number => view.getFloat32(at + 4 * k, true);
      for (let c = 0; c < 3; c++) {
        list.positions.push(value(3 + 3 * c), value(4 + 3 * c), value(5 + 3 * c));
        list.normals.push(value(0), value(1), value(2));
      }
      list.face([3 * t, 3 * t + 1, 3 * t + 2]);
    }
  } else {
    const text = new TextDecoder().decode(bytes);
    if (!/^\s*solid/.test(text))
      throw new ModelError('This is no STL file, or it breaks off before its end.');
    let normal = [0, 0, 1];
    for (const row of text.split(/\r?\n/)) {
      const words = row.trim().split(/\s+/);
      if (words[0] === 'facet') normal = words.slice(2, 5).map(Number);
      if (words[0] !== 'vertex') continue;
      list.positions.push(...words.slice(1, 4).map(Number));
      list.normals.push(...normal);
      if (list.count % 3 === 0) list.face([list.count - 3, list.count - 2, list.count - 1]);
    }
  }
  if (list.count === 0) throw new ModelError('There are no triangles in this STL file.');
  // Some writers leave all normals 0.
  if (list.normals.every((v) => v === 0)) list.normals.length = 0;
  const notes: string[] = [];
  return { parts: [{ name: 'Part 1', shape: list.shape(notes), picture: null }], pictures: [], notes };
}
