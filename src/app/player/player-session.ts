import { create } from 'zustand';
import * as Y from 'yjs';
import { ownClock } from '../../core/own-clock';
import type { Show } from '../../core/document/types';
import { timeAt } from '../../core/desk/performance-state';
import { HeardState } from '../../core/machines/news';
import { readShared } from '../../core/machines/show-document';
import { LostCount, numberOfHeard } from '../../core/audio/heard';
import { catalogue } from '../../nodes/catalogue';
import { engine } from '../engine/client';
import { FileFetcher } from '../machines/fetch-files';
import { openLink, playerName } from '../machines/link';
import { smallPicture } from './small-picture';
import { forgetPass, keptPass, letIn, takeBrought, type KeptPass } from '../machines/pass';

interface PlayerState {
  /** It has a link, or needs a code for one. */
  phase: 'code' | 'linked' | 'alone';
  hasMain: boolean;
  hasShow: boolean;
  /** Something was painted since it has the show. */
  hasPicture: boolean;
  /** The screen of the wall that it shows; null: what is on air. */
  screen: string | null;
  /** What it lacks, by what it is of. */
  lacks: Readonly<Record<string, string>>;
  /** Addresses of the spare. */
  spare: readonly string[];
  isNamed: boolean;
  fault: string;
}

export const playerStore = create<PlayerState>()(() => ({
  phase: 'alone',
  hasMain: false,
  hasShow: false,
  hasPicture: false,
  screen: null,
  lacks: {},
  spare: [],
  isNamed: true,
  fault: '',
}));

/** Milliseconds for which a player shows its name. */
const namedMs = 6000;

/** Share of what is heard from which it is said that it does not arrive. */
const mostLost = 0.05;

/** Milliseconds between two small pictures of what it shows, for the main machine. */
const shownMs = 2000;

let framesPerSecond = 0;
/** What the picture of this player is shown in. */
let box: HTMLElement | null = null;

/** Says where the picture is shown, which the main machine is told small. */
export function showsIn(element: HTMLElement | null): void {
  box = element;
}
let naming = 0;

/** Shows the name of this player for a while. */
export function showName(): void {
  playerStore.setState({ isNamed: true });
  clearTimeout(naming);
  naming = window.setTimeout(() => playerStore.setState({ isNamed: false }), namedMs);
}

function lack(of: string, sentence: string): void {
  const lacks = { ...playerStore.getState().lacks };
  if (sentence) lacks[of] = sentence;
  else delete lacks[of];
  playerStore.setState({ lacks });
}

/** What checks shows is large: it comes while the link is opened and the show is on its way. */
const checker = import('../../core/show/validate').then(({ checkShow }) => checkShow);

/** Joins the other machines: from here on this page shows what the main machine performs. */
function join(token: string): void {
  const files = new FileFetcher(token, lack);
  let document = new Y.Doc();
  let show: Show | null = null;
  let check: Awaited<typeof checker> | null = null;
  /** The show is as the main machine has it, and this performance has begun with it. */
  let isOpen = false;
  let reading = 0;
  const { link, clock } = openLink({ role: 'player', name: playerName(), token }, () => ({
    framesPerSecond,
    where: '',
    lacks: Object.values(playerStore.getState().lacks).join(' ').slice(0, 300),
  }));

  const heard = new HeardState(clock);
  const begin = (): void => {
    const now = heard.here;
    if (!show || !now || isOpen) return;
    isOpen = true;
    engine().open(show, now.program.program, now);
    // What has a memory comes to what it would be had it been here from the start.
    engine().perform({ type: 'seek', time: timeAt(now, ownClock()), exactly: true });
    follow();
    playerStore.setState({ hasShow: true });
  };
  const follow = (): void => {
    const state = heard.here;
    if (isOpen && state) engine().send({ type: 'follow', state });
  };
  const read = (): void => {
    clearTimeout(reading);
    reading = 0;
    const next = readShared(document, show) as Show | null;
    if (!next || !check) return;
    if (next === show) {
      lack('show', '');
      return;
    }
    catalogue.take(next.modules);
    const finding = check(next, catalogue).find(({ level }) => level === 'error');
    if (finding) {
      lack('show', `The show could not be followed at ${finding.where}: ${finding.what}`);
      return;
    }
    lack('show', '');
    show = next;
    void files.fetch(show);
    if (isOpen) engine().update(show);
    else begin();
  };

  void checker.then((checkShow) => {
    check = checkShow;
    read();
  });
  link.on('welcome', () => playerStore.setState({ phase: 'linked', fault: '' }));
  link.on('disconnect', () => playerStore.setState({ phase: 'alone' }));
  link.on('connect_error', ({ message }) => {
    if (!link.active) refuse(message);
  });
  link.on('farewell', (sentence) => {
    link.disconnect();
    refuse(sentence);
  });
  link.on('main', (hasMain) => playerStore.setState({ hasMain }));
  // Where this computer passes all on, it goes there by itself.
  link.on('spare', (spare) => playerStore.setState({ spare: isThisMachine ? [] : spare }));
  link.on('show', (update, isWhole) => {
    if (isWhole) document = new Y.Doc();
    try {
      Y.applyUpdate(document, new Uint8Array(update));
    } catch (error) {
      lack('show', `An edit of the show could not be followed (${(error as Error).message}).`);
      return;
    }
    if (!reading) reading = window.setTimeout(read, isWhole ? 0 : 30);
  });
  link.on('state', (news, isWhole) => {
    heard.take(news, isWhole);
    if (isOpen) follow();
    else {
      // What was written last to the show belongs to it.
      if (reading) read();
      begin();
    }
  });
  link.on('inputs', (controllers) => engine().set({ type: 'controllers', controllers }));
  const lost = new LostCount();
  link.on('sound', (bytes) => {
    const packed = new Uint8Array(bytes);
    const number = numberOfHeard(packed);
    if (number === null || !lost.take(number)) return;
    engine().send({ type: 'sound-heard', packed });
    const share = lost.share();
    if (share !== null)
      lack('sound', share > mostLost ? `${Math.round(100 * share)} % of what is heard does not arrive.` : '');
  });
  setInterval(() => {
    if (box && link.connected && playerStore.getState().hasPicture)
      void smallPicture(box).then((jpeg) => jpeg && link.volatile.emit('shown', jpeg));
  }, shownMs);
  link.on('given', (screen) => {
    playerStore.setState({ screen });
    showName();
  });
  link.on('identify', showName);
  link.on('restart', () => engine().restart());
  engine().on('stats', ({ stats }) => (framesPerSecond = stats.framesPerSecond));
  engine().on('graphics', ({ state: graphics, message }) =>
    lack('graphics', graphics === 'back' ? '' : message),
  );
}

/** A code that came with the address, as long as it was not tried. */
let given: string | null = null;

/** A code has to be typed, and why. What is shown goes on. */
function refuse(fault: string): void {
  forgetPass('player');
  if (given !== null) {
    void enter(given);
    return;
  }
  playerStore.setState({ phase: 'code', fault });
}

/** Types a code of the main machine. */
export async function enter(code: string): Promise<void> {
  given = null;
  try {
    const pass: KeptPass = await letIn(code, 'player');
    join(pass.token);
  } catch (error) {
    playerStore.setState({ phase: 'code', fault: (error as Error).message });
  }
}

/** The address is one of this computer: the main machine itself, which needs no pass, or the relay of a player. */
const isThisMachine = /^(localhost|127\.|\[::1\])/.test(location.host) && location.protocol === 'http:';

/** Begins: with what it was let in with before, with a code, or without anything on the main machine itself. */
export function begin(): void {
  takeBrought('player');
  const pass = keptPass('player');
  const [, code] = /^#code=(\d{6})$/.exec(location.hash) ?? [];
  // A code that came with the address is used up, and is not left to be read there.
  if (code) history.replaceState(null, '', location.pathname + location.search);
  given = code ?? null;
  if (pass) join(pass.token);
  else if (code) void enter(code);
  else if (isThisMachine) join('');
  else playerStore.setState({ phase: 'code' });
  showName();
}
