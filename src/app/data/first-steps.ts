import { create } from 'zustand';
import { persist } from 'zustand/middleware';

interface FirstSteps {
  /** The step that is shown, from 0; null: none. */
  at: number | null;
  /** They were gone through, left or declined: they are not offered again by themselves. */
  isKnown: boolean;
}

/** The first steps: where a newcomer is on the way to a picture on stage. Kept in this browser. */
export const firstSteps = create<FirstSteps>()(
  persist((): FirstSteps => ({ at: null, isKnown: false }), { name: 'pyrvel-first-steps' }),
);

export const goToStep = (at: number): void => void firstSteps.setState({ at });

export const leaveSteps = (): void => void firstSteps.setState({ at: null, isKnown: true });
