import { create } from 'zustand';
import * as Y from 'yjs';
import type { Show } from '../../core/document/types';
import { readShared } from '../../core/machines/show-document';
import { mayPerform, type DeskRole } from '../../core/machines/roles';
import { openShow, showStore } from '../data/show-store';
import { liveStore } from '../engine/live';
import { performOn } from '../engine/perform';
import { openLink } from '../machines/link';
import { forgetPass, keptPass, letIn, takeBrought, type KeptPass } from '../machines/pass';
import { say } from '../parts/notices';

interface RemoteState {
  /** What this machine is let in as; null: it has to type a code. */
  role: DeskRole | null;
  name: string;
  /** Whether it hears the server, and whether that hears a main machine. */
  isLinked: boolean;
  hasMain: boolean;
  hasShow: boolean;
  /** Addresses of the spare. */
  spare: readonly string[];
  /** Address of the last small picture of the program. */
  picture: string | null;
  /** Why it was not let in, or was sent away. */
  fault: string;
}

const nameKey = 'pyrvel.machine-name';

/** A name by which the one at the main machine may know this one. */
const likelyName = (): string => {
  const { userAgent } = navigator;
  const device = ['iPad', 'iPhone', 'Android', 'Windows', 'Macintosh', 'Linux'].find((word) =>
    userAgent.includes(word),
  );
  return device ? `Desk on ${device}` : 'Remote desk';
};

export const remoteStore = create<RemoteState>()(() => ({
  role: null,
  name: localStorage.getItem(nameKey) ?? likelyName(),
  isLinked: false,
  hasMain: false,
  hasShow: false,
  spare: [],
  picture: null,
  fault: '',
}));

let close: (() => void) | null = null;

/** Has to type a code again, and why. */
function leave(fault: string): void {
  forgetPass('remote');
  close?.();
  close = null;
  remoteStore.setState({ role: null, isLinked: false, fault });
}

function join(token: string): void {
  close?.();
  const opened = openLink({ role: 'remote', name: remoteStore.getState().name, token }, () => ({
    framesPerSecond: null,
    where: '',
    lacks: '',
  }));
  close = opened.close;
  const { link } = opened;
  let document = new Y.Doc();
  let reading = 0;
  const read = (): void => {
    reading = 0;
    const { id, show } = showStore.getState();
    const next = readShared(document, id ? show : null) as Show | null;
    if (!next) return;
    if (id) showStore.setState({ show: next });
    else openShow('remote', next);
    remoteStore.setState({ hasShow: true });
  };
  link.on('welcome', ({ desk }) => remoteStore.setState({ role: desk, isLinked: true, fault: '' }));
  link.on('disconnect', () => remoteStore.setState({ isLinked: false }));
  link.on('connect_error', ({ message }) => {
    // A server that is away is tried again; one that refuses says why.
    if (!link.active) leave(message);
  });
  link.on('farewell', leave);
  link.on('main', (hasMain) => remoteStore.setState({ hasMain }));
  link.on('spare', (spare) => remoteStore.setState({ spare }));
  link.on('show', (update, isWhole) => {
    if (isWhole) document = new Y.Doc();
    Y.applyUpdate(document, new Uint8Array(update));
    // Edits come many times a second while something is dragged.
    if (!reading) reading = window.setTimeout(read, isWhole ? 0 : 50);
  });
  link.on('state', (news) => liveStore.setState(news));
  link.on('picture', (jpeg) => {
    const before = remoteStore.getState().picture;
    const blob = new Blob([new Uint8Array(jpeg)], { type: 'image/jpeg' });
    remoteStore.setState({ picture: URL.createObjectURL(blob) });
    // The page may still be decoding the one before.
    if (before) setTimeout(() => URL.revokeObjectURL(before), 1000);
  });
  performOn((command) => {
    const { role, isLinked } = remoteStore.getState();
    if (!role || !mayPerform(role, command.type))
      say({ tone: 'info', text: 'This remote desk may not do that.' });
    // What was done while nobody heard it would come much later, and all at once.
    else if (!isLinked) say({ tone: 'warning', text: 'The main machine does not hear this desk just now.' });
    else
      link.emit('perform', command, (fault) => {
        if (fault) say({ tone: 'warning', text: fault });
      });
  });
}

/** Types a code of the main machine. */
export async function enter(name: string, code: string): Promise<void> {
  localStorage.setItem(nameKey, name);
  remoteStore.setState({ name, fault: '' });
  try {
    start(await letIn(code, 'remote'));
  } catch (error) {
    remoteStore.setState({ fault: (error as Error).message });
  }
}

function start({ token, role }: KeptPass): void {
  if (role === 'player' || role === 'spare') return;
  remoteStore.setState({ role });
  join(token);
}

/** Goes on with what this machine was let in with before. */
export function comeBack(): void {
  takeBrought('remote');
  const pass = keptPass('remote');
  if (pass) start(pass);
}
