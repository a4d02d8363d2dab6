import { windowSize } from '../engine/output-box';
import { stayAwake } from './stay-awake';
import type { StagePage } from './windows';

/** The page of a stage window: black, with one canvas. F fills the screen, Escape leaves it. */
const body = document.body;
Object.assign(document.documentElement.style, { height: '100%', background: '#000' });
Object.assign(body.style, {
  margin: '0',
  height: '100%',
  overflow: 'hidden',
  background: '#000',
  cursor: 'none',
  position: 'relative',
});

let tellSize: ((width: number, height: number) => void) | null = null;

/** Frames that the refresh rate of the display is told from. */
const countedFrames = 90;
let hertz: number | null = null;
{
  const times: number[] = [];
  const count = (now: number): void => {
    times.push(now);
    if (times.length <= countedFrames) {
      requestAnimationFrame(count);
      return;
    }
    const gaps = times.slice(1).map((time, k) => time - times[k]);
    // Frames that were late say nothing of the display.
    hertz = Math.round(1000 / gaps.sort((a, b) => a - b)[Math.floor(gaps.length / 4)]);
  };
  requestAnimationFrame(count);
}

const page: Required<StagePage>['pyrvelStage'] = {
  page: crypto.randomUUID(),
  box: body,
  size: windowSize,
  onSize(listener) {
    tellSize = listener;
  },
  hertz: () => hertz,
};
(window as Window & StagePage).pyrvelStage = page;

addEventListener('resize', () => {
  const { width, height } = windowSize();
  tellSize?.(width, height);
});
addEventListener('keydown', (event) => {
  if (event.key !== 'f' && event.key !== 'F') return;
  if (document.fullscreenElement) void document.exitFullscreen();
  else void document.documentElement.requestFullscreen();
});

stayAwake();

const announce = (): void =>
  (opener as Window | null)?.postMessage({ pyrvel: 'stage-here' }, location.origin);
new BroadcastChannel('pyrvel').onmessage = announce;
announce();
// An editor that was reloaded in a bad moment may have heard neither; it takes a window in only once.
setInterval(announce, 2000);
