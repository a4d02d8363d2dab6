import { controllers, controllersChanged, onHand } from './controllers';

/** Where controllers stand, kept in this browser: after a reload a fader that was left up is still up. */
interface Kept {
  controls: Record<string, number>;
  bends: Record<string, number>;
  osc: Record<string, readonly number[]>;
}

const key = 'pyrvel.controllers';
/** Milliseconds between two writings while something moves. */
const keepMs = 200;

const numbersIn = (value: unknown): Record<string, number> =>
  Object.fromEntries(
    Object.entries(value ?? {}).filter(([, v]) => typeof v === 'number' && Number.isFinite(v)),
  );

/** Puts MIDI and OSC back to where they stood. Notes, keys and buttons are not held by anybody any more. */
function restore(): void {
  let kept: Partial<Kept>;
  try {
    kept = (JSON.parse(localStorage.getItem(key) ?? '{}') ?? {}) as Partial<Kept>;
  } catch {
    return;
  }
  controllers.midi = {
    ...controllers.midi,
    controls: numbersIn(kept.controls),
    bends: numbersIn(kept.bends),
  };
  controllers.osc = Object.fromEntries(
    Object.entries(kept.osc ?? {})
      .filter(([, args]) => Array.isArray(args) && args.every((v) => typeof v === 'number'))
      .map(([address, args]) => [address, { args, count: 0 }]),
  );
  controllersChanged();
}

/** Puts controllers back to where they stood, and keeps where they stand from now on; called once. */
export function keepHand(): void {
  restore();
  let { midi, osc } = controllers;
  let timer: number | null = null;
  const write = (): void => {
    if (timer !== null) clearTimeout(timer);
    timer = null;
    const kept: Kept = {
      controls: { ...controllers.midi.controls },
      bends: { ...controllers.midi.bends },
      osc: Object.fromEntries(Object.entries(controllers.osc).map(([address, { args }]) => [address, args])),
    };
    try {
      localStorage.setItem(key, JSON.stringify(kept));
    } catch {
      // No space: controllers begin at 0 then, as they would without this.
    }
  };
  onHand(() => {
    if (controllers.midi === midi && controllers.osc === osc) return;
    ({ midi, osc } = controllers);
    timer ??= window.setTimeout(write, keepMs);
  });
  window.addEventListener('pagehide', write);
}
