import { create } from 'zustand';

/** Who waits for a colour from the monitor; null: nobody. */
export const picking = create<{ take: ((colour: readonly [number, number, number]) => void) | null }>()(
  () => ({
    take: null,
  }),
);

/** The next click on the monitor gives its colour; Escape, or another call with null, ends the wait. */
export const pickColour = (take: ((colour: readonly [number, number, number]) => void) | null): void =>
  picking.setState({ take });
