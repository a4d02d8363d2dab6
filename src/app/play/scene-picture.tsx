import { useEffect, useState } from 'react';
import type { Scene, Snapshot } from '../../core/document/types';
import { useShow, showStore } from '../data/show-store';
import { keepScenePicture, keptScenePicture } from '../data/scene-pictures';
import { engine } from '../engine/client';

/** Milliseconds after which the first picture is asked for: the monitors come first. */
const startAfterMs = 300;
let lastAsked: Promise<unknown> = Promise.resolve();

/** Lets work wait until what was asked for before is done: pictures of many scenes at once would all come too late. */
function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const next = lastAsked.then(work, work);
  lastAsked = next.catch(() => undefined);
  return next;
}

/**
 * A small picture of a scene: the one that is kept at once, and a newer one if the scene was edited since. Pictures come
 * from the engine one after the other. `snapshot`: as the scene looks with it.
 */
function usePicture(scene: Scene | undefined, snapshot: Snapshot | null): string | null {
  const [url, setUrl] = useState<string | null>(null);
  const values = snapshot?.values;
  const name = snapshot?.id ?? '';
  useEffect(() => {
    if (!scene) return;
    let gone = false;
    const made: string[] = [];
    const show = (picture: Blob): void => {
      if (gone) return;
      made.push(URL.createObjectURL(picture));
      setUrl(made[made.length - 1]);
    };
    const { id } = showStore.getState();
    const of = { scene, name, values };
    // Without a database pictures are taken each time.
    const kept = keptScenePicture(id, of).catch(() => ({ picture: null, isNew: false }));
    void kept.then(({ picture }) => picture && show(picture));
    const take = async (): Promise<void> => {
      if (gone || (await kept).isNew) return;
      const { png } = await engine().request(
        { type: 'picture', scene: scene.id, width: 320, height: 180, desk: values },
        60000,
      );
      const picture = new Blob([png], { type: 'image/png' });
      show(picture);
      await keepScenePicture(id, of, picture);
    };
    // A scene with a fault says so where it is edited.
    const timer = setTimeout(() => void inTurn(take).catch(() => undefined), startAfterMs);
    return () => {
      gone = true;
      clearTimeout(timer);
      for (const old of made) URL.revokeObjectURL(old);
    };
  }, [scene, name, values]);
  return url;
}

function Picture({ url }: { url: string | null }) {
  return url ? (
    <img src={url} alt="" className="h-full w-full object-cover" />
  ) : (
    <span className="block h-full w-full bg-base-300" />
  );
}

export function ScenePicture({ sceneId }: { sceneId: string }) {
  const scene = useShow((show) => show.scenes.find((s) => s.id === sceneId));
  return <Picture url={usePicture(scene, null)} />;
}

/** A scene as it looks with a snapshot. */
export function SnapshotPicture({ snapshot, sceneId }: { snapshot: Snapshot; sceneId: string }) {
  const scene = useShow((show) => show.scenes.find((s) => s.id === sceneId));
  return <Picture url={usePicture(scene, snapshot)} />;
}
