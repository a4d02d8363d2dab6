import type { Scene } from '../../core/document/types';
import { database } from './db';
import { nameOf } from './files';

const keyOf = (show: string, scene: Scene): string => `${show} ${scene.id}`;
const contentOf = (scene: Scene): Promise<string> => nameOf(new Blob([JSON.stringify(scene)]));

/** The picture that is kept of a scene, and whether the scene is still what it was taken of. */
export async function keptScenePicture(
  show: string,
  scene: Scene,
): Promise<{ picture: Blob | null; isNew: boolean }> {
  const kept = await database.scenePictures.get(keyOf(show, scene));
  return { picture: kept?.picture ?? null, isNew: kept?.of === (await contentOf(scene)) };
}

export async function keepScenePicture(show: string, scene: Scene, picture: Blob): Promise<void> {
  await database.scenePictures.put({ id: keyOf(show, scene), show, of: await contentOf(scene), picture });
}

export async function dropScenePictures(show: string): Promise<void> {
  await database.scenePictures.where('show').equals(show).delete();
}
