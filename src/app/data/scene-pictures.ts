import type { DeskValues } from '../../core/desk/desk-run';
import type { Scene } from '../../core/document/types';
import { database } from './db';
import { nameOf } from './files';

/** What a picture is taken of: a scene, and what the desk stands at in it; `name` tells it from others of the scene. */
export interface PictureOf {
  scene: Scene;
  name: string;
  values?: DeskValues;
}

const keyOf = (show: string, { scene, name }: PictureOf): string =>
  name ? `${show} ${scene.id} ${name}` : `${show} ${scene.id}`;
const contentOf = ({ scene, values }: PictureOf): Promise<string> =>
  nameOf(new Blob([JSON.stringify(scene), values ? JSON.stringify(values) : '']));

/** The picture that is kept of a scene, and whether the scene is still what it was taken of. */
export async function keptScenePicture(
  show: string,
  of: PictureOf,
): Promise<{ picture: Blob | null; isNew: boolean }> {
  const kept = await database.scenePictures.get(keyOf(show, of));
  return { picture: kept?.picture ?? null, isNew: kept?.of === (await contentOf(of)) };
}

export async function keepScenePicture(show: string, of: PictureOf, picture: Blob): Promise<void> {
  await database.scenePictures.put({ id: keyOf(show, of), show, of: await contentOf(of), picture });
}

export async function dropScenePictures(show: string): Promise<void> {
  await database.scenePictures.where('show').equals(show).delete();
}
