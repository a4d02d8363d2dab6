import { useEffect, useRef, useState } from 'react';
import { create } from 'zustand';
import { Lightbulb, X } from 'lucide-react';
import type { DarkReason } from '../../core/run/why-dark';
import type { Scene } from '../../core/show/types';
import { choose } from '../data/session';
import { engine } from '../engine/client';

interface DarkState {
  scene: string;
  reasons: readonly DarkReason[] | null;
}

const darkStore = create<DarkState>(() => ({ scene: '', reasons: null }));

/** Why the picture is dark, as far as it lies with a node; only while the question is open. */
export const useDarkReason = (scene: string, node: string): string | undefined =>
  darkStore((s) =>
    s.scene === scene ? s.reasons?.find((reason) => reason.node === node)?.sentence : undefined,
  );

/** Brightness below which a picture counts as dark, 0 to 1. */
const darkBelow = 0.012;
const lookMs = 700;
/** Times as long as a look took until the next. */
const restFactor = 12;

/** The mean brightness of the picture on the monitor; null while there is none. */
function brightness(monitor: Element, small: CanvasRenderingContext2D): number | null {
  const canvas = monitor.querySelector<HTMLCanvasElement>('canvas[data-surface]');
  if (!canvas || canvas.width < 4) return null;
  const { width, height } = small.canvas;
  small.drawImage(canvas, 0, 0, width, height);
  const { data } = small.getImageData(0, 0, width, height);
  let sum = 0;
  for (let k = 0; k < data.length; k += 4) sum += data[k] + data[k + 1] + data[k + 2];
  return sum / ((data.length / 4) * 3 * 255);
}

/** While the picture is dark: a question on the monitor, and its answers, each leading to the node it is about. */
export function WhyDark({ scene }: { scene: Scene }) {
  const place = useRef<HTMLDivElement>(null);
  const [dark, setDark] = useState(false);
  const { reasons, scene: asked } = darkStore();
  const open = reasons !== null && asked === scene.id;

  useEffect(() => {
    const small = document.createElement('canvas');
    small.width = 16;
    small.height = 9;
    const context = small.getContext('2d', { willReadFrequently: true })!;
    let times = 0;
    let timer = 0;
    const look = (): void => {
      const start = performance.now();
      const bright = place.current?.parentElement ? brightness(place.current.parentElement, context) : null;
      // A blink is not darkness: only what is dark twice in a row asks.
      times = bright !== null && bright < darkBelow ? times + 1 : 0;
      setDark(times >= 2);
      // The look waits for all that the GPU has to do: where that takes long, it is rare, and the desk stays free.
      timer = window.setTimeout(look, Math.max(lookMs, restFactor * (performance.now() - start)));
    };
    timer = window.setTimeout(look, lookMs);
    return () => clearTimeout(timer);
  }, [scene.id]);

  useEffect(() => {
    if (!dark && open) darkStore.setState({ reasons: null });
  }, [dark, open]);

  const ask = async (): Promise<void> => {
    const answer = await engine().ask({ what: 'why', scene: scene.id });
    if (answer.what === 'why') darkStore.setState({ scene: scene.id, reasons: answer.reasons });
  };

  return (
    <div
      ref={place}
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
                  onClick={() => node && choose([node])}
                >
                  <span className="font-semibold text-primary">{scene.nodes[node]?.name ?? scene.name}</span>{' '}
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
