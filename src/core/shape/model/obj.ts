import { MeshList } from './mesh-list';
import { ModelError, type Model, type ModelPart } from './model';

/** Reads a Wavefront OBJ text: points with colours, normals, places on a picture, faces and lines; a part a group. */
export function readObj(text: string): Model {
  const places: number[][] = [];
  const uvs: number[][] = [];
  const normals: number[][] = [];
  const parts: ModelPart[] = [];
  const notes: string[] = [];
  let name = 'Part 1';
  let list = new MeshList();
  let known = new Map<string, number>();
  const end = (): void => {
    if (list.count) parts.push({ name, shape: list.shape(notes), picture: null });
    list = new MeshList();
    known = new Map();
  };
  const index = (word: string, size: number, line: number): number => {
    const n = Number(word);
    const at = n < 0 ? size + n : n - 1;
    if (!Number.isInteger(n) || at < 0 || at >= size)
      throw new ModelError(`Line ${line} names ${word}, but there are only ${size}. The file is damaged.`);
    return at;
  };
  const pointOf = (word: string, line: number): number => {
    const ready = known.get(word);
    if (ready !== undefined) return ready;
    const [p, t, n] = word.split('/');
    const place = places[index(p, places.length, line)];
    list.positions.push(place[0], place[1], place[2]);
    if (t) list.uvs.push(...uvs[index(t, uvs.length, line)].slice(0, 2));
    if (n) list.normals.push(...normals[index(n, normals.length, line)]);
    if (place.length >= 6) list.colours.push(place[3], place[4], place[5], 1);
    known.set(word, list.count - 1);
    return list.count - 1;
  };
  text.split(/\r?\n/).forEach((row, k) => {
    const words = row.trim().split(/\s+/);
    const values = (): number[] => words.slice(1).map(Number);
    switch (words[0]) {
      case 'v':
        places.push(values());
        break;
      case 'vt':
        uvs.push(values());
        break;
      case 'vn':
        normals.push(values());
        break;
      case 'f':
        list.face(words.slice(1).map((word) => pointOf(word, k + 1)));
        break;
      case 'l':
        list.line(words.slice(1).map((word) => pointOf(word, k + 1)));
        break;
      case 'o':
      case 'g':
        end();
        name = words.slice(1).join(' ') || `Part ${parts.length + 1}`;
        break;
      case 'mtllib':
        notes.push('Materials of an OBJ lie in other files and are left out. Save it as GLB to keep them.');
        break;
    }
  });
  end();
  if (parts.length === 0) {
    // Points without faces are a shape as well.
    if (places.length === 0) throw new ModelError('There are no points in this OBJ file.');
    for (const place of places) list.positions.push(place[0], place[1], place[2]);
    if (places.every((place) => place.length >= 6))
      for (const place of places) list.colours.push(place[3], place[4], place[5], 1);
    end();
  }
  return { parts, pictures: [], notes: [...new Set(notes)] };
}
