import { create } from 'zustand';

/** Whether the open show is being edited in another tab or window: then nothing is edited or saved here. */
export const ownership = create<{ elsewhere: boolean }>()(() => ({ elsewhere: false }));

/** Milliseconds for a tab that is being closed or reloaded to let go of its show. */
const patienceMs = 1000;
/** Milliseconds for another tab to save what it has before its show is taken over. */
const saveMs = 2000;

interface Held {
  id: string;
  release(): void;
  /** Ends waiting for it, where another tab has it. */
  wait: AbortController | null;
}

let held: Held | null = null;
const channel = new BroadcastChannel('pyrvel.ownership');
type Word = { type: 'save' | 'saved'; id: string };

const nameOf = (id: string): string => `pyrvel-show-${id}`;

/** Asks for the lock of a show; gives whether it was granted. `lost` is called when another tab took it over. */
function request(id: string, options: LockOptions, lost: () => void): Promise<(() => void) | null> {
  return new Promise((resolve) => {
    let release = (): void => undefined;
    let wasGranted = false;
    const keep = new Promise<void>((end) => (release = end));
    navigator.locks
      .request(nameOf(id), options, () => {
        wasGranted = true;
        resolve(release);
        return keep;
      })
      .catch(() => (wasGranted ? lost() : resolve(null)));
  });
}

/** Lets go of the show that was open here. */
export function letGo(): void {
  held?.release();
  held?.wait?.abort();
  held = null;
  ownership.setState({ elsewhere: false });
}

/**
 * Makes this tab the one that edits a show. Where another has it, that is said in `ownership`, and `freed` is called once it
 * has let go and this tab has it.
 */
export async function own(id: string, freed: () => void, steal = false): Promise<void> {
  letGo();
  // Without locks (an old browser, or no secure context) there is nothing to go by.
  if (!('locks' in navigator)) return;
  const mine: Held = { id, release: () => undefined, wait: null };
  held = mine;
  const lost = (): void => {
    if (held === mine) void waitFor(mine, lost, freed);
  };
  const options = steal ? { steal: true } : { signal: AbortSignal.timeout(patienceMs) };
  const release = await request(id, options, lost);
  if (held !== mine) release?.();
  else if (release) mine.release = release;
  else await waitFor(mine, lost, freed);
}

/** Says that the show is elsewhere, and waits in the background until it is free. */
async function waitFor(mine: Held, lost: () => void, freed: () => void): Promise<void> {
  ownership.setState({ elsewhere: true });
  mine.wait = new AbortController();
  void request(mine.id, { signal: mine.wait.signal }, lost).then((release) => {
    if (!release) return;
    if (held !== mine) return release();
    mine.release = release;
    mine.wait = null;
    freed();
  });
}

/** Has the tab that edits a show save it, so that nothing is lost when it is taken over. */
export function askToSave(id: string): Promise<void> {
  return new Promise((resolve) => {
    const done = (): void => {
      channel.removeEventListener('message', hear);
      clearTimeout(timer);
      resolve();
    };
    const hear = ({ data }: MessageEvent<Word>): void => {
      if (data.type === 'saved' && data.id === id) done();
    };
    const timer = setTimeout(done, saveMs);
    channel.addEventListener('message', hear);
    channel.postMessage({ type: 'save', id } satisfies Word);
  });
}

/** Saves when another tab is about to take the show over; called once. */
export function saveWhenAsked(save: () => Promise<void>): void {
  channel.addEventListener('message', ({ data }: MessageEvent<Word>) => {
    if (data.type !== 'save' || held?.id !== data.id || ownership.getState().elsewhere) return;
    void save().then(() => channel.postMessage({ type: 'saved', id: data.id } satisfies Word));
  });
}
