import { useEffect, useMemo, useRef, useState } from 'react';
import type { Scene } from '../../../core/document/types';
import type { OutputSource } from '../../../engine/protocol/protocol';
import { useShow } from '../../data/show-store';
import { engine } from '../../engine/client';
import { EngineCanvas } from '../../engine/engine-canvas';

const useNodeSource = (scene: string, node: string): OutputSource =>
  useMemo(() => ({ type: 'node', scene, node }), [scene, node]);

/** Milliseconds between two readings of the pixel under the pointer. */
const pixelMs = 120;

/** A picture with the pixel under the pointer. */
export function PictureView({
  scene,
  node,
  size,
}: {
  scene: Scene;
  node: string;
  size: readonly [number, number];
}) {
  const [pixel, setPixel] = useState<{
    x: number;
    y: number;
    rgba: readonly number[];
    width: number;
    height: number;
  } | null>(null);
  const [message, setMessage] = useState('');
  const place = useRef<readonly [number, number] | null>(null);
  const source = useNodeSource(scene.id, node);
  useEffect(() => {
    let asking = false;
    // The picture may move under a pointer that stands still.
    const timer = setInterval(() => {
      if (asking || !place.current) return;
      const [x, y] = place.current;
      asking = true;
      engine()
        .request({ type: 'pixel', scene: scene.id, node, x, y })
        .then(({ rgba, width, height }) => {
          setPixel({ x: Math.floor(x * width), y: Math.floor(y * height), rgba, width, height });
          setMessage('');
        })
        .catch((error: Error) => setMessage(error.message))
        .finally(() => (asking = false));
    }, pixelMs);
    return () => clearInterval(timer);
  }, [scene.id, node]);
  const point = (event: React.PointerEvent<HTMLDivElement>): void => {
    const box = event.currentTarget.getBoundingClientRect();
    const x = (event.clientX - box.left) / box.width;
    const y = 1 - (event.clientY - box.top) / box.height;
    place.current = x >= 0 && x < 1 && y >= 0 && y < 1 ? [x, y] : null;
  };
  return (
    <div className="flex min-w-0 grow gap-3 p-2">
      <div
        className="max-h-full max-w-[75%] min-w-0 cursor-crosshair self-start"
        style={{
          aspectRatio: `${size[0]} / ${size[1]}`,
          ...(size[0] > 4 * size[1] ? { width: '75%' } : { height: '100%' }),
        }}
        onPointerMove={point}
        onPointerDown={point}
        onPointerLeave={() => (place.current = null)}
        data-testid="bench-picture"
      >
        <EngineCanvas source={source} className="h-full w-full rounded" label="Output of the node" />
      </div>
      <div className="figures w-40 leading-5" data-testid="pixel">
        <p className="quiet">
          {size[0]} x {size[1]} pixels
        </p>
        {pixel ? (
          <>
            <p>
              x {pixel.x} &nbsp; y {pixel.y}
            </p>
            {['red', 'green', 'blue', 'alpha'].map((name, k) => (
              <p key={name} className="flex justify-between">
                <span className="quiet">{name}</span>
                <span data-channel={name}>{pixel.rgba[k].toFixed(4)}</span>
              </p>
            ))}
          </>
        ) : (
          <p className="quiet font-sans">{message || 'Move over the picture to read its pixels.'}</p>
        )}
      </div>
    </div>
  );
}

/** A cut through a field, as its card shows it, larger. */
export function FieldView({ scene, node }: { scene: string; node: string }) {
  const source = useNodeSource(scene, node);
  const canvas = useShow((show) => show.canvas);
  return (
    <div className="flex min-w-0 grow gap-3 p-2">
      <div
        className="h-full max-w-[75%] min-w-0 self-start"
        style={{ aspectRatio: `${canvas.width} / ${canvas.height}` }}
        data-testid="bench-field"
      >
        <EngineCanvas source={source} className="h-full w-full rounded" label="Cut through the field" />
      </div>
      <p className="quiet w-44">
        A slice facing the viewer: inside in its colours, outside rings a tenth of a unit apart. Wire it into
        a Field Shot to see it in space.
      </p>
    </div>
  );
}
