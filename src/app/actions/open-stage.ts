import { say } from '../parts/notices';

/** Opens another stage window, which announces itself to the editor. */
export function openStage(): void {
  // A name of its own: one that is taken would load that window again instead of opening another.
  const name = `pyrvel-stage-${crypto.randomUUID()}`;
  const stage = window.open('/stage.html', name, 'popup,width=960,height=540');
  if (!stage)
    say({
      tone: 'warning',
      text: 'The browser held the stage window back. Allow pop-ups for this address and press Stage again.',
    });
}
