import { useStoreApi } from '@xyflow/react';
import { useEffect, type RefObject } from 'react';
import type { Scene } from '../../core/document/types';
import type { CardNode, WireEdge } from './flow-model';
import { cardsIn, seeCards } from './in-sight';

/** Milliseconds a view has to stand until the engine is told what is in sight: a pan is not worth a rebuild a frame. */
const sightMs = 150;

/** How much larger names are drawn than their cards: they shrink less, so that they can be read when the whole patch is in sight. */
const labelScaleAt = (zoom: number): number => Math.round(Math.min(1.6, Math.max(1, 0.85 / zoom)) * 10) / 10;

/**
 * Follows what is in sight of a patch, beside React, which would put the whole patch together again for every frame of a pan:
 * what is out of sight gets no preview, and is worked out only if something else needs it; names are drawn larger from afar.
 */
export function useSight(scene: Scene, box: RefObject<HTMLElement | null>): void {
  const flow = useStoreApi<CardNode, WireEdge>();
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let last = '';
    const look = (): void => {
      const {
        transform: [left, top, zoom],
        width,
        height,
      } = flow.getState();
      const now = `${left} ${top} ${zoom} ${width} ${height}`;
      if (now === last) return;
      last = now;
      const scale = labelScaleAt(zoom);
      box.current?.style.setProperty('--label-scale', String(scale));
      box.current?.setAttribute('data-far', String(scale > 1.3));
      clearTimeout(timer);
      timer = setTimeout(() => {
        const view = { x: -left / zoom, y: -top / zoom, width: width / zoom, height: height / zoom };
        seeCards(width > 0 ? cardsIn(scene, view) : null);
      }, sightMs);
    };
    look();
    const stop = flow.subscribe(look);
    return () => {
      stop();
      clearTimeout(timer);
    };
  }, [flow, scene, box]);
  useEffect(() => () => seeCards(null), []);
}
