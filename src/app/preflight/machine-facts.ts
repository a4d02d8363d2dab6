import { isSoftwareRenderer } from '../../core/software-renderer';
import type { MachineFacts } from '../../core/preflight/machine-check';
import { engine } from '../engine/client';
import { displayStore } from '../data/displays';
import { inputStore } from '../inputs/input-store';

/** What the Battery Status API (W3C) gives. */
interface Battery {
  charging: boolean;
  level: number;
}
type Told = Navigator & { getBattery?: () => Promise<Battery> };

/** The renderer of this browser by its name, and what it can draw into; asked of a context that is given back at once. */
function drawingFacts(): { renderer: string; isSoftware: boolean | null; hasFloats: boolean | null } {
  const gl = new OffscreenCanvas(1, 1).getContext('webgl2');
  if (!gl) return { renderer: 'no WebGL2', isSoftware: null, hasFloats: null };
  const named = gl.getExtension('WEBGL_debug_renderer_info');
  const renderer = String(gl.getParameter(named ? named.UNMASKED_RENDERER_WEBGL : gl.RENDERER));
  const hasFloats = gl.getExtension('EXT_color_buffer_float') !== null;
  gl.getExtension('WEBGL_lose_context')?.loseContext();
  return { renderer, isSoftware: isSoftwareRenderer(renderer), hasFloats };
}

async function storageFacts(): Promise<MachineFacts['storage']> {
  try {
    const { usage = 0, quota = 0 } = await navigator.storage.estimate();
    return { used: usage, quota, isKept: await navigator.storage.persisted() };
  } catch {
    return null;
  }
}

async function powerFacts(): Promise<MachineFacts['power']> {
  const battery = await (navigator as Told).getBattery?.().catch(() => null);
  return battery ? { isCharging: battery.charging, share: battery.level } : null;
}

/** Whether this browser keeps the display awake when it is asked to, as stage windows do; null: this page is not in sight. */
async function wakeFacts(): Promise<boolean | null> {
  if (document.visibilityState !== 'visible') return null;
  try {
    await (await navigator.wakeLock.request('screen')).release();
    return true;
  } catch {
    return false;
  }
}

/** Samples a second that this browser hears and plays sound at. */
async function usualRate(): Promise<number | null> {
  try {
    const context = new AudioContext();
    const { sampleRate } = context;
    await context.close();
    return sampleRate;
  } catch {
    return null;
  }
}

/** Asks this machine and its browser what they have. `name`: how they name themselves. */
export async function machineFacts(): Promise<{ facts: MachineFacts; name: string }> {
  const { renderer, ...drawing } = drawingFacts();
  const { midi, sound, server } = inputStore.getState();
  const [storage, power, soundRate, staysAwake, fonts] = await Promise.all([
    storageFacts(),
    powerFacts(),
    usualRate(),
    wakeFacts(),
    engine()
      .request({ type: 'fonts' })
      // An engine that is away says nothing of them.
      .then(
        ({ missing }) => missing,
        () => [],
      ),
  ]);
  const facts: MachineFacts = {
    ...drawing,
    hasCodecs: 'VideoDecoder' in window,
    missingFonts: fonts,
    staysAwake,
    displays: displayStore.getState().displays?.length ?? null,
    storage,
    server,
    power,
    midi: midi.standing,
    sound: sound.standing,
    soundRate,
  };
  return { facts, name: `${renderer} · ${navigator.userAgent}` };
}
