import { useEffect } from 'react';
import { create } from 'zustand';
import { Lightbulb, X } from 'lucide-react';
import type { DarkReason } from '../../core/run/why-dark';
import type { Scene } from '../../core/document/types';
import { nameOfNode } from '../../core/module/open-place';
import { nodeAtPlace, placeOfNode, sceneOfPlace } from '../../core/module/place';
import { useScene, useShow } from '../data/show-store';
import { engine } from '../engine/client';
import { liveStore } from '../engine/live';
import { goTo } from './going-to';

interface DarkState {
  scene: string;
  reasons: readonly DarkReason[] | null;
}

const darkStore = create<DarkState>(() => ({ scene: '', reasons: null }));

/** Why the picture is dark, as far as it lies with a node; only while the question is open. */
export const useDarkReason = (place: string, node: string): string | undefined =>
  darkStore((s) =>
    s.scene === sceneOfPlace(place)
      ? s.reasons?.find((reason) => reason.node !== null && nodeAtPlace(place, reason.node) === node)
          ?.sentence
      : undefined,
  );

/** While the picture is dark: a question on the monitor, and its answers, each leading to the node it is about, in modules too. */
export function WhyDark({ scene: { id: place } }: { scene: Scene }) {
  const scene = useScene(sceneOfPlace(place));
  const dark = liveStore((s) => s.dark === sceneOfPlace(place));
  const { reasons, scene: asked } = darkStore();
  const show = useShow((s) => s);
  const open = reasons !== null && asked === scene?.id;

  useEffect(() => {
    if (!dark && open) darkStore.setState({ reasons: null });
  }, [dark, open]);

  if (!scene) return null;
  const ask = async (): Promise<void> => {
    const { reasons: found } = await engine().request({ type: 'why', scene: scene.id });
    darkStore.setState({ scene: scene.id, reasons: found });
  };

  return (
    <div
      className="pointer-events-none absolute inset-0 flex items-end justify-center p-2"
      data-testid="why-dark"
    >
      {dark && !open && (
        <button type="button" className="btn btn-xs pointer-events-auto" onClick={() => void ask()}>
          <Lightbulb size={13} /> Why dark?
        </button>
      )}
      {open && (
        <div
          className="pointer-events-auto max-h-full w-full overflow-y-auto rounded border edge bg-base-200/95 p-2"
          role="region"
          aria-label="Why dark?"
        >
          <div className="flex items-center justify-between">
            <p className="font-semibold">Why dark?</p>
            <button
              type="button"
              className="tool"
              aria-label="Close"
              onClick={() => darkStore.setState({ reasons: null })}
            >
              <X size={13} />
            </button>
          </div>
          {reasons.length === 0 && (
            <p className="quiet">
              Nothing in the patch explains it: look at the cards from left to right for the first dark one.
            </p>
          )}
          <ul>
            {reasons.slice(0, 8).map(({ node, sentence }) => (
              <li key={`${node} ${sentence}`}>
                <button
                  type="button"
                  className="w-full rounded px-1 py-0.5 text-left hover:bg-base-300"
                  onClick={() => {
                    if (!node) return;
                    const at = placeOfNode(scene.id, node);
                    goTo(at.place, at.node);
                  }}
                >
                  <span className="font-semibold text-primary">
                    {node ? nameOfNode(show, scene.id, node) : scene.name}
                  </span>{' '}
                  {sentence}
                </button>
              </li>
            ))}
          </ul>
        </div>
      )}
    </div>
  );
}
