import { sniff } from '../../image/sniff';
import { ModelError, mostModelBytes, type Model } from './model';
import { readObj } from './obj';
import { readPly } from './ply';
import { readStl } from './stl';

/** Its library is the largest of all readers, and most shows have no such model: it is loaded with the first. */
const readWholeGltf = async (bytes: Uint8Array, isText: boolean): Promise<Model> =>
  (await import('./gltf')).readGltf(bytes, isText);

/** Reads a model of any form that is known, told by its content. Throws ModelError. */
export async function readModel(bytes: Uint8Array): Promise<Model> {
  if (bytes.length > mostModelBytes)
    throw new ModelError(
      `The model has ${Math.round(bytes.length / 1048576)} MB; at most ${mostModelBytes / 1048576} can be played.`,
    );
  switch (sniff(bytes)) {
    case 'glb':
      return readWholeGltf(bytes, false);
    case 'gltf':
      return readWholeGltf(bytes, true);
    case 'ply':
      return readPly(bytes);
    case 'obj':
      return readObj(new TextDecoder().decode(bytes));
    case 'stl':
      return readStl(bytes);
    default:
      throw new ModelError('This is no model that can be read. Known are GLB, glTF, OBJ, PLY and STL.');
  }
}
