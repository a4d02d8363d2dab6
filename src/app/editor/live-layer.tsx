import { useStoreApi, ViewportPortal } from '@xyflow/react';
import { useEffect, useRef } from 'react';
import type { Scene } from '../../core/document/types';
import { useSession } from '../data/session';
import { engine } from '../engine/client';
import { placeInBitmap } from '../engine/output-box';
import type { CardNode, WireEdge } from './flow-model';
import { cutouts, facesOf, onWires, placedWires, themeColours } from './live-layout';

/** Pixels painted for each of the page's, at most: what moves on the patch is small. */
const mostRatio = 1.5;

function Layer({ scene }: { scene: Scene }) {
  const flow = useStoreApi<CardNode, WireEdge>();
  const theme = useSession((s) => s.theme);
  const box = useRef<HTMLDivElement>(null);

  useEffect(() => {
    const element = box.current!;
    const canvas = document.createElement('canvas');
    const context = canvas.getContext('bitmaprenderer')!;
    element.replaceChildren(canvas);
    return engine().on('layer-painted', ({ bitmap, share, layout }) => {
      if (layout.scene !== scene.id) return;
      const { x, y, zoom } = layout.view;
      const [width, height] = [layout.width / layout.ratio, layout.height / layout.ratio];
      context.transferFromImageBitmap(bitmap);
      placeInBitmap(canvas, share);
      element.style.width = `${width}px`;
      element.style.height = `${height}px`;
      element.style.transform = `translate(${-x / zoom}px, ${-y / zoom}px) scale(${1 / zoom})`;
      flow.getState().domNode?.setAttribute('data-live', '');
      element.dataset.painted = String(Number(element.dataset.painted ?? 0) + 1);
      element.dataset.view = [x, y, zoom].map((v) => v.toFixed(2)).join(' ');
    });
  }, [scene.id, flow]);

  useEffect(() => {
    const colours = themeColours();
    let asked = 0;
    let last = '';
    const send = (): void => {
      asked = 0;
      const { transform, width, height, nodeLookup, domNode } = flow.getState();
      const [x, y, zoom] = transform;
      if (width < 2 || height < 2) return;
      const ratio = Math.min(mostRatio, window.devicePixelRatio || 1);
      const cards = [...nodeLookup.values()].map(({ id, internals }) => ({
        id,
        x: internals.positionAbsolute.x,
        y: internals.positionAbsolute.y,
        z: internals.z,
      }));
      const layout = {
        scene: scene.id,
        width: Math.round(width * ratio),
        height: Math.round(height * ratio),
        ratio,
        view: { x, y, zoom },
        faces: facesOf(scene, cards, {
          x: -x / zoom,
          y: -y / zoom,
          width: width / zoom,
          height: height / zoom,
        }),
        wires: placedWires(),
        colours,
      };
      const text = JSON.stringify(layout);
      if (text === last) return;
      last = text;
      engine().set({ type: 'layer', layout });
      const cuts = cutouts(layout.faces);
      for (const card of domNode?.querySelectorAll<HTMLElement>('.react-flow__node') ?? []) {
        const cut = cuts.get(card.dataset.id ?? '');
        card.style.clipPath = cut ? `path(evenodd, "${cut}")` : '';
      }
    };
    const ask = (): void => {
      asked ||= requestAnimationFrame(send);
    };
    ask();
    const stops = [flow.subscribe(ask), onWires(ask)];
    return () => {
      cancelAnimationFrame(asked);
      for (const stop of stops) stop();
    };
  }, [flow, scene, theme]);

  useEffect(() => () => engine().set({ type: 'layer', layout: null }), []);

  return (
    <div
      ref={box}
      className="pointer-events-none absolute top-0 left-0 -z-10 origin-top-left overflow-hidden"
      data-testid="live-layer"
      aria-hidden
    />
  );
}

/**
 * The picture behind the cards on which the engine paints all that moves on the patch. It lies in the patch itself, so that it
 * moves with it at once; the engine follows with a picture for the new view, and both change in the same frame.
 */
export function LiveLayer({ scene }: { scene: Scene }) {
  return (
    <ViewportPortal>
      <Layer scene={scene} />
    </ViewportPortal>
  );
}
