import { hasWindow, windowOutputOf, windowSizeOf } from '../../core/wall/outputs';
import { showStore } from '../data/show-store';
import { say } from '../parts/notices';
import { chosenDisplay, displayOf } from '../data/displays';
import { windowOf } from '../data/stage-windows';

const heldBack = (): void =>
  say({
    tone: 'warning',
    text: 'The browser held the stage window back. Allow pop-ups for this address and press it again.',
  });

/** Opens another stage window with the whole canvas, which announces itself to the editor. */
export function openStage(): void {
  // A name of its own: one that is taken would load that window again instead of opening another.
  const name = `pyrvel-stage-${crypto.randomUUID()}`;
  if (!window.open('/stage.html', name, 'popup,width=960,height=540')) heldBack();
}

/** Opens the window of a screen of the wall on its display; one that is open comes to the front. */
export function openScreen(id: string): void {
  const open = windowOf(id);
  if (open) {
    open.focus();
    return;
  }
  const { id: show, show: document } = showStore.getState();
  const output = windowOutputOf(document, id);
  if (!output) return;
  const display = displayOf(show, id);
  if (!display && chosenDisplay(show, id))
    say({
      tone: 'warning',
      text: `The display of ${output.name} is not here. Its window opens on this one: move it, or choose another display.`,
    });
  const [width, height] = windowSizeOf(output);
  // A raster is read by a processor pixel for pixel.
  const scale = output.type === 'led' ? 1 : Math.min(1, 960 / width, 720 / height);
  const place = display
    ? `left=${display.left},top=${display.top},width=${display.width},height=${display.height},fullscreen`
    : `width=${Math.round(width * scale)},height=${Math.round(height * scale)}`;
  const name = `pyrvel-screen-${crypto.randomUUID()}`;
  if (!window.open(`/stage.html?screen=${encodeURIComponent(id)}`, name, `popup,${place}`)) heldBack();
}

/** Opens all screens of the wall that are not open. */
export function openAllScreens(): void {
  for (const { id } of showStore.getState().show.wall.outputs.filter(hasWindow))
    if (!windowOf(id)) openScreen(id);
}
