import { Columns2 } from 'lucide-react';
import { memo } from 'react';
import { create } from 'zustand';
import { sceneOfPlace } from '../../core/module/place';
import type { Scene, Show } from '../../core/document/types';
import { showStore } from '../data/show-store';

interface Comparison {
  /** The state that is compared with how the scene stands now; null: nothing is compared. */
  a: { scene: Scene; modules: Show['modules'] } | null;
  /** Where the line between both lies, 0..1 from the left. */
  split: number;
}

export const comparison = create<Comparison>()(() => ({ a: null, split: 0.5 }));

const sceneAtHand = (place: string): Scene | undefined =>
  showStore.getState().show.scenes.find(({ id }) => id === sceneOfPlace(place));

/** Begins to compare a scene with how it stands now, or ends it. */
function toggle(place: string): void {
  const scene = sceneAtHand(place);
  const { a } = comparison.getState();
  const { modules } = showStore.getState().show;
  comparison.setState({ a: a || !scene ? null : { scene, modules } });
}

/** The button that keeps a state to compare with. */
export const CompareButton = memo(function CompareButton({ place }: { place: string }) {
  const isOn = comparison((s) => s.a?.scene.id === sceneOfPlace(place));
  return (
    <button
      type="button"
      className={`tool ${isOn ? 'text-primary' : ''}`}
      aria-pressed={isOn}
      aria-label="Compare"
      title="Keeps how the scene stands as A, and shows it beside what you change from now on"
      onClick={() => toggle(place)}
    >
      <Columns2 size={13} />
    </button>
  );
});
