import { performanceAt, type PerformanceState } from '../../core/desk/performance-state';
import { useRef, useSyncExternalStore } from 'react';
import { create } from 'zustand';
import { shallow } from 'zustand/shallow';
import type {
  BenchData,
  InjectedFault,
  FlashReport,
  PixelReport,
  NodeGlance,
  PartGlance,
  Stats,
} from '../../engine/protocol/protocol';
import { sceneOfPlace } from '../../core/module/place';
import { say } from '../parts/notices';
import { engine } from './client';
import { byPlaces } from './places';

/** What the engine last reported. Numbers of nodes go to elements through `onGlance`, past React; what moves fast on the patch is painted by the engine. */
interface LiveState extends Omit<PerformanceState, 'number' | 'at'> {
  stats: Stats | null;
  faults: Record<string, Record<string, string>>;
  notes: Record<string, Record<string, string>>;
  /** What is worth saying of return wires, by scene and wire. */
  feedback: Record<string, Record<string, string>>;
  /** Scene whose picture has been dark for a while. */
  dark: string | null;
  graphics: 'fine' | 'lost' | 'none';
  /** What happens to the pixels of strings; null: none is sent. */
  pixels: PixelReport | null;
  /** What the flash meter counts; null: nothing is on air that somebody sees. */
  flashes: FlashReport | null;
}

export const liveStore = create<LiveState>()(() => ({
  ...performanceAt(''),
  stats: null,
  faults: {},
  notes: {},
  feedback: {},
  dark: null,
  graphics: 'fine',
  pixels: null,
  flashes: null,
}));

const glanceListeners = new Map<string, Set<(glance: NodeGlance) => void>>();
const partListeners = new Set<(parts: PartGlance[]) => void>();
const benchListeners = new Set<(bench: BenchData | null) => void>();
const glances = new Map<string, NodeGlance>();

function add<K, L>(map: Map<K, Set<L>>, key: K, listener: L): () => void {
  const set = map.get(key) ?? new Set<L>();
  map.set(key, set);
  set.add(listener);
  return () => {
    set.delete(listener);
    if (set.size === 0) map.delete(key);
  };
}

/** Called twice a second with the numbers of a node whose card is in sight. */
export const onGlance = (node: string, listener: (glance: NodeGlance) => void): (() => void) =>
  add(glanceListeners, node, listener);

export const lastGlance = (node: string): NodeGlance | undefined => glances.get(node);

export function onBench(listener: (bench: BenchData | null) => void): () => void {
  benchListeners.add(listener);
  return () => benchListeners.delete(listener);
}

/** Live value of one driven control part of the inspected node; null while it is not driven. */
export function usePart(part: string): PartGlance | null {
  const last = useRef<PartGlance | null>(null);
  return useSyncExternalStore(
    (changed) => {
      const listener = (parts: PartGlance[]): void => {
        const now = parts.find((p) => p.part === part) ?? null;
        const before = last.current;
        if (now?.value === before?.value && now?.asked === before?.asked && now?.samples === before?.samples)
          return;
        last.current = now;
        changed();
      };
      partListeners.add(listener);
      return () => partListeners.delete(listener);
    },
    () => last.current,
  );
}

/** What was said of other scenes than one, and of what lies in them. */
const withoutScene = <T>(said: Record<string, T>, scene: string): Record<string, T> =>
  Object.fromEntries(Object.entries(said).filter(([place]) => sceneOfPlace(place) !== scene));

/** Milliseconds after which what waits for a paint is taken without one, as in a window out of sight. */
const unpaintedMs = 100;

/** Has `take` called no more than once a paint of the page, with the last of what came meanwhile. */
function oncePerPaint<T>(take: (value: T) => void): (value: T) => void {
  let isWaiting = false;
  let waiting: { value: T } | null = null;
  const give = (value: T): void => {
    isWaiting = true;
    const next = (): void => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
      isWaiting = false;
      const last = waiting;
      waiting = null;
      if (last) give(last.value);
    };
    const frame = requestAnimationFrame(next);
    const timer = setTimeout(next, unpaintedMs);
    take(value);
  };
  return (value) => {
    if (isWaiting) waiting = { value };
    else give(value);
  };
}

/** Brings the engine's words to the stores, and tells it whether the window is in sight; called once when the app starts. */
export function listenToEngine(): void {
  const client = engine();
  const tellHidden = (): void => client.set({ type: 'desk-hidden', hidden: document.hidden });
  document.addEventListener('visibilitychange', tellHidden);
  tellHidden();
  const show = oncePerPaint((state: PerformanceState) => {
    const { transport, program, blackout, freeze, desk, cues, masters, layer, bpm, moves } = state;
    const now = liveStore.getState();
    // What is the same keeps its identity, so that only what shows it is drawn again.
    const keep = <T>(before: T, after: T): T => (shallow(before, after) ? before : after);
    const range = keep(now.transport.range, transport.range);
    liveStore.setState({
      transport: keep(now.transport, { ...transport, range }),
      program: keep(now.program, program),
      blackout,
      freeze,
      desk:
        desk.version === now.desk.version &&
        desk.underWay.length === now.desk.underWay.length &&
        desk.canUndo === now.desk.canUndo
          ? now.desk
          : desk,
      // Their parts are objects, which are new with each message.
      cues: JSON.stringify(cues) === JSON.stringify(now.cues) ? now.cues : cues,
      masters: keep(now.masters, masters),
      layer: layer && now.layer ? keep(now.layer, layer) : layer,
      bpm,
      moves: keep(now.moves, moves),
    });
  });
  client.on('performance', ({ state }) => show(state));
  // For scripts that watch a long evening and disturb it, as `npm run soak` does.
  Object.assign(window, {
    pyrvel: {
      report: () => ({ stats: liveStore.getState().stats, performance: client.lastReport }),
      inject: (fault: InjectedFault) => client.inject(fault),
    },
  });
  client.on('dark', ({ scene, dark }) => liveStore.setState({ dark: dark ? scene : null }));
  client.on('pixels', ({ pixels }) => liveStore.setState({ pixels }));
  client.on('flashes', ({ flashes }) => liveStore.setState({ flashes }));
  client.on('stats', ({ stats }) => liveStore.setState({ stats }));
  client.on('faults', ({ scene, faults, notes, feedback }) =>
    liveStore.setState((s) => ({
      faults: { ...withoutScene(s.faults, scene), ...byPlaces(scene, faults) },
      notes: { ...withoutScene(s.notes, scene), ...byPlaces(scene, notes) },
      feedback: { ...s.feedback, [scene]: feedback },
    })),
  );
  client.on('glance', ({ nodes, parts, bench }) => {
    for (const glance of nodes ?? []) {
      glances.set(glance.node, glance);
      for (const listener of glanceListeners.get(glance.node) ?? []) listener(glance);
    }
    for (const listener of partListeners) listener(parts);
    for (const listener of benchListeners) listener(bench);
  });
  client.on('graphics', ({ state, message }) => {
    liveStore.setState({ graphics: state === 'back' ? 'fine' : state });
    say({ tone: state === 'back' ? 'info' : state === 'lost' ? 'warning' : 'error', text: message });
  });
}
