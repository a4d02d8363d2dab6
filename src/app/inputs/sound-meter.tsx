import { useEffect, useRef } from 'react';
import { inputStore } from './input-store';

/** Milliseconds for which the lamp of an onset is lit. */
const litMs = 90;
/** Pixels between two bars, and of the lamp with what is around it. */
const gap = 3;
const lampWidth = 24;
const lampRadius = 6;

interface Look {
  bars: string;
  unlit: string;
}

function draw(canvas: HTMLCanvasElement, bands: ArrayLike<number>, isLit: boolean, look: Look): void {
  const context = canvas.getContext('2d')!;
  const ratio = window.devicePixelRatio || 1;
  const [width, height] = [canvas.clientWidth, canvas.clientHeight];
  const [w, h] = [Math.round(width * ratio), Math.round(height * ratio)];
  if (canvas.width !== w || canvas.height !== h) Object.assign(canvas, { width: w, height: h });
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  context.clearRect(0, 0, width, height);
  const step = (width - lampWidth) / bands.length;
  context.fillStyle = look.bars;
  for (let k = 0; k < bands.length; k++) {
    const high = Math.max(2, bands[k] * height);
    context.globalAlpha = 0.45 + 0.55 * bands[k];
    context.fillRect(k * step, height - high, Math.max(1, step - gap), high);
  }
  context.globalAlpha = 1;
  context.fillStyle = isLit ? look.bars : look.unlit;
  context.beginPath();
  context.arc(width - lampRadius, height / 2, lampRadius, 0, 2 * Math.PI);
  context.fill();
}

/**
 * Bands as bars, lowest first, and a lamp for every start of a note. All on one canvas: as elements of the page they cost more than the picture
 * where no graphics card helps.
 */
export function SoundMeter() {
  const ref = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const canvas = ref.current!;
    const style = getComputedStyle(document.documentElement);
    const colour = (name: string): string => style.getPropertyValue(name);
    let frame = 0;
    let onsets = inputStore.getState().heard?.onsets ?? 0;
    let litUntil = 0;
    const paint = (now: number): void => {
      const { heard } = inputStore.getState();
      if (heard && heard.onsets !== onsets) {
        onsets = heard.onsets;
        litUntil = now + litMs;
      }
      const look = { bars: colour('--color-primary'), unlit: colour('--color-base-300') };
      draw(canvas, heard?.bands ?? new Float32Array(32), now < litUntil, look);
      frame = now < litUntil ? requestAnimationFrame(paint) : 0;
    };
    const ask = (): void => {
      frame ||= requestAnimationFrame(paint);
    };
    ask();
    const observer = new ResizeObserver(ask);
    observer.observe(canvas);
    const stop = inputStore.subscribe((now, before) => {
      if (now.heard !== before.heard) ask();
    });
    return () => {
      stop();
      observer.disconnect();
      cancelAnimationFrame(frame);
    };
  }, []);
  return (
    <div className="flex min-h-0 grow rounded bg-base-100 p-2">
      <canvas
        ref={ref}
        className="min-h-0 w-full min-w-0"
        role="img"
        aria-label="Bands of the sound"
        title="Bands, low to high; the lamp lights at each start of a note"
      />
    </div>
  );
}
