import { useEffect } from 'react';
import { sceneOfPlace } from '../../core/module/place';
import { sceneOutOf } from '../../core/patch/plan';
import { catalogue } from '../../nodes/catalogue';
import { pickColour, picking } from '../data/picking';
import { showStore } from '../data/show-store';
import { engine } from '../engine/client';
import { say } from '../parts/notices';

/** Lies over the monitor while a colour is picked: a click gives the colour of what lies under it. */
export default function MonitorPick({ place }: { place: string }) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key !== 'Escape') return;
      event.preventDefault();
      event.stopPropagation();
      pickColour(null);
    };
    window.addEventListener('keydown', onKey, true);
    return () => {
      window.removeEventListener('keydown', onKey, true);
      pickColour(null);
    };
  }, []);
  const pick = async (event: React.PointerEvent<HTMLDivElement>): Promise<void> => {
    const { take } = picking.getState();
    const box = event.currentTarget.getBoundingClientRect();
    const [x, y] = [(event.clientX - box.left) / box.width, 1 - (event.clientY - box.top) / box.height];
    pickColour(null);
    const { show } = showStore.getState();
    const scene = show.scenes.find(({ id }) => id === sceneOfPlace(place));
    const node = scene && sceneOutOf(scene, catalogue);
    if (!take || !scene || !node) return;
    try {
      const { rgba } = await engine().request({ type: 'pixel', scene: scene.id, node, x, y });
      const [r, g, b] = rgba.map((v) => Number(Math.min(1, Math.max(0, v)).toFixed(4)));
      take([r, g, b]);
    } catch (error) {
      say({ tone: 'warning', text: `No colour could be read: ${(error as Error).message}` });
    }
  };
  return (
    <div
      className="absolute inset-0 z-10 cursor-crosshair touch-none ring-2 ring-primary ring-inset"
      data-testid="monitor-pick"
      onPointerDown={(event) => void pick(event)}
    >
      <span className="pointer-events-none absolute top-2 left-2 rounded bg-primary px-2 py-0.5 font-semibold text-primary-content">
        Click a colour; Escape ends
      </span>
    </div>
  );
}
