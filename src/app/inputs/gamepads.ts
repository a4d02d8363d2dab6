import type { PadState } from '../../core/inputs/inputs';
import { controllers, controllersChanged, heard } from './controllers';
import { inputStore } from './input-store';

/** Milliseconds between two looks: gamepads have to be asked. */
const lookEvery = 12;

/** The pad on the screen stands in for the first as long as no other is there. */
let standIn: PadState | null = null;
let timer: number | undefined;

function put(pads: readonly PadState[]): void {
  const before = controllers.pads;
  const same =
    before.length === pads.length &&
    pads.every((pad, k) =>
      [...pad.sticks, ...pad.buttons].every((v, j) => v === [...before[k].sticks, ...before[k].buttons][j]),
    );
  if (same) return;
  pads.forEach((pad, k) => {
    pad.buttons.forEach((value, button) => {
      if (value !== (before[k]?.buttons[button] ?? 0)) heard({ type: 'pad', pad: k + 1, button, value });
    });
    pad.sticks.forEach((value, stick) => {
      if (value !== (before[k]?.sticks[stick] ?? 0)) heard({ type: 'pad', pad: k + 1, stick, value });
    });
  });
  controllers.pads = pads;
  controllersChanged();
}

function look(): void {
  const real = navigator.getGamepads().filter((pad) => pad?.connected);
  const names = real.map((pad) => pad!.id.replace(/\s*\(.*$/, ''));
  if (names.join() !== inputStore.getState().pads.join()) inputStore.setState({ pads: names });
  if (!real.length) {
    put(standIn ? [standIn] : []);
    clearInterval(timer);
    timer = undefined;
    return;
  }
  put(
    real.map((pad) => ({
      // The standard counts y downwards.
      sticks: [0, 1, 2, 3].map((axis) => (pad!.axes[axis] ?? 0) * (axis % 2 ? -1 : 1)),
      buttons: pad!.buttons.map(({ value }) => value),
    })),
  );
}

/** Picks up gamepads as they come and go. */
export function listenToGamepads(): void {
  const wake = (): void => {
    timer ??= window.setInterval(look, lookEvery);
  };
  window.addEventListener('gamepadconnected', wake);
  window.addEventListener('gamepaddisconnected', wake);
}

/** Moves the pad on the screen. */
export function moveStandIn(pad: PadState): void {
  standIn = pad;
  if (timer === undefined) put([pad]);
}
