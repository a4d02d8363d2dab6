/** One key of the keyboard. */
export interface KeyState {
  down: boolean;
  /** How often it has gone down since the start. */
  presses: number;
}

/** One pointer, in centred units: 0,0 in the middle, height 1, y up. */
export interface PointerState {
  x: number;
  y: number;
  down: boolean;
  presses: number;
  /** Sum of wheel steps, up is positive. */
  wheel: number;
  /** Over the monitor or a stage window. */
  inside: boolean;
}

/** What comes from outside, as it stands at this frame. */
export interface InputState {
  keys: Readonly<Record<string, KeyState>>;
  pointer: Readonly<PointerState>;
}

export const quietInputs = (): InputState => ({
  keys: {},
  pointer: { x: 0, y: 0, down: false, presses: 0, wheel: 0, inside: false },
});
