import { WebIO, type Document, type Node, type GLTF, type Primitive } from '@gltf-transform/core';
import { pictureForms, sniff } from '../../image/sniff';
import type { Shape } from '../shape';
import { MeshList } from './mesh-list';
import { checkTriangles, ModelError, type Model, type ModelPart } from './model';

/** Reads glTF 2.0: a GLB, or a glTF text that holds its buffers in itself. Parts stand where the nodes put them. */
export async function readGltf(bytes: Uint8Array, isText: boolean): Promise<Model> {
  const io = new WebIO();
  let document: Document;
  try {
    if (isText) {
      const json = JSON.parse(new TextDecoder().decode(bytes)) as GLTF.IGLTF;
      const outside = [...(json.buffers ?? []), ...(json.images ?? [])].find(
        ({ uri }) => uri !== undefined && !uri.startsWith('data:'),
      );
      if (outside)
        throw new ModelError(`It needs ${outside.uri}, which is another file. Save the model as one GLB.`);
      document = await io.readJSON({ json, resources: {} });
    } else document = await io.readBinary(Uint8Array.from(bytes));
  } catch (cause) {
    if (cause instanceof ModelError) throw cause;
    throw new ModelError('The glTF file is damaged or needs what is not there. Export it again, as GLB.', {
      cause,
    });
  }
  return fromDocument(document);
}

function fromDocument(document: Document): Model {
  const notes: string[] = [];
  const parts: ModelPart[] = [];
  const textures = document.getRoot().listTextures();
  const visit = (node: Node): void => {
    const mesh = node.getMesh();
    for (const primitive of mesh?.listPrimitives() ?? []) {
      const shape = shapeOf(primitive, node.getWorldMatrix(), notes);
      if (!shape) continue;
      const texture = primitive.getMaterial()?.getBaseColorTexture() ?? null;
      const picture = texture ? textures.indexOf(texture) : null;
      parts.push({ name: node.getName() || mesh!.getName() || `Part ${parts.length + 1}`, shape, picture });
    }
    for (const child of node.listChildren()) visit(child);
  };
  const root = document.getRoot();
  const scene = root.getDefaultScene() ?? root.listScenes()[0];
  for (const node of scene?.listChildren() ?? []) visit(node);
  if (parts.length === 0) throw new ModelError('There are no faces or points in this glTF file.');
  const pictures = textures.map((texture) => ({
    bytes: Uint8Array.from(texture.getImage() ?? new Uint8Array(0)),
    type: texture.getMimeType(),
  }));
  for (const part of parts) {
    if (part.picture === null) continue;
    const { bytes, type } = pictures[part.picture];
    if (pictureForms.has(sniff(bytes))) continue;
    notes.push(
      bytes.length
        ? `The picture of ${part.name} is of a kind that cannot be shown (${type || 'it does not say which'}); save the model with PNG or JPEG pictures. It shows its colour alone.`
        : `The picture of ${part.name} is missing; it shows its colour alone.`,
    );
    part.picture = null;
  }
  return { parts, pictures, notes: [...new Set(notes)] };
}

/** A linear amount of light as pictures show it (IEC 61966-2-1): glTF keeps colours of materials and points linear. */
const shown = (light: number): number =>
  light <= 0.0031308 ? 12.92 * light : 1.055 * light ** (1 / 2.4) - 0.055;

function shapeOf(primitive: Primitive, m: readonly number[], notes: string[]): Shape | null {
  const places = primitive.getAttribute('POSITION');
  if (!places) return null;
  const list = new MeshList();
  const normals = primitive.getAttribute('NORMAL');
  const uvs = primitive.getAttribute('TEXCOORD_0');
  const colours = primitive.getAttribute('COLOR_0');
  const base = primitive.getMaterial()?.getBaseColorFactor() ?? [1, 1, 1, 1];
  const plain = base.every((v) => v === 1);
  const value = [0, 0, 0, 0];
  for (let i = 0; i < places.getCount(); i++) {
    const [x, y, z] = places.getElement(i, value);
    for (let k = 0; k < 3; k++) list.positions.push(m[k] * x + m[4 + k] * y + m[8 + k] * z + m[12 + k]);
    if (normals) {
      const [a, b, c] = normals.getElement(i, value);
      for (let k = 0; k < 3; k++) list.normals.push(m[k] * a + m[4 + k] * b + m[8 + k] * c);
    }
    if (uvs) {
      const [u, v] = uvs.getElement(i, value);
      // Pictures in glTF begin at the upper left.
      list.uvs.push(u, 1 - v);
    }
    if (colours || !plain) {
      const [r, g, b, a] = colours ? colours.getElement(i, [1, 1, 1, 1]) : [1, 1, 1, 1];
      list.colours.push(...[r * base[0], g * base[1], b * base[2]].map(shown), (a ?? 1) * base[3]);
    }
  }
  const indices = primitive.getIndices();
  const order = (k: number): number => (indices ? indices.getScalar(k) : k);
  const count = indices ? indices.getCount() : places.getCount();
  const mode = primitive.getMode();
  if (mode === 4) {
    checkTriangles(count / 3);
    for (let k = 0; k + 2 < count; k += 3) list.face([order(k), order(k + 1), order(k + 2)]);
  } else if (mode === 5 || mode === 6) {
    for (let k = 0; k + 2 < count; k++)
      if (mode === 6) list.face([order(0), order(k + 1), order(k + 2)]);
      else list.face(k % 2 ? [order(k + 1), order(k), order(k + 2)] : [order(k), order(k + 1), order(k + 2)]);
  } else if (mode === 1) for (let k = 0; k + 1 < count; k += 2) list.line([order(k), order(k + 1)]);
  else if (mode === 2 || mode === 3) list.line(Array.from({ length: count }, (_, k) => order(k)));
  return list.shape(notes);
}
