import * as Y from 'yjs';
import type { PerformanceState } from '../../core/desk/performance-state';
import { NewsOfState } from '../../core/machines/news';
import { writeShared } from '../../core/machines/show-document';
import type { Show } from '../../core/document/types';
import { ownership } from '../data/ownership';
import { showStore } from '../data/show-store';
import { engine } from '../engine/client';
import { liveStore } from '../engine/live';
import { perform } from '../engine/perform';
import { controllers, onHand } from '../inputs/controllers';
import { givenTo, keepGiven } from './given';
import { shareFiles } from './share-files';
import { machinesStore } from './machines-store';
import { openLink, type Link } from './link';

/** Milliseconds between two reports of the performance to other machines. */
const leastMs = 33;
/** Small pictures of the program for those who look on. */
const look = { width: 256, perSecond: 8 };
/** Milliseconds until a window that another one keeps from being the main machine tries again. */
const retryMs = 5000;

/** The link of this window, once it is opened. */
let own: Link | null = null;

/** Gives a player a screen of the wall; null: what is on air. */
export function giveScreen(machine: string, screen: string | null): void {
  keepGiven(machine, screen);
  own?.emit('give', machine, screen);
}

/** Has a player show its name for a while. */
export const identify = (machine: string): void => void own?.emit('identify', machine);
/** Has a player replace its engine. */
export const restartEngine = (machine: string): void => void own?.emit('restart', machine);

/** Ends a remote desk: it has to be let in again. */
export const dismissMachine = (machine: string): void => void own?.emit('dismiss', machine);

/** The show as a document that is told to others, made anew with each show that is opened. */
class ToldShow {
  private document = new Y.Doc();
  private told: { id: string; show: Show } | null = null;

  constructor(private readonly link: Link) {}

  tell(id: string, show: Show, isAll: boolean): void {
    if (isAll || this.told?.id !== id) {
      this.document = new Y.Doc();
      writeShared(this.document, null, show);
      this.link.emit('show', Y.encodeStateAsUpdate(this.document), true);
    } else if (this.told.show !== show) {
      const tell = (update: Uint8Array): void => void this.link.emit('show', update, false);
      this.document.on('update', tell);
      writeShared(this.document, this.told.show, show);
      this.document.off('update', tell);
    }
    this.told = { id, show };
  }
}

/** Makes this window the main machine for others: they are told of the show and the performance, and what they do is carried out here. */
export function keepMachines(): void {
  const { link, clock } = openLink({ role: 'main', name: 'Main', token: '' }, () => ({
    framesPerSecond: liveStore.getState().stats?.framesPerSecond ?? 0,
    lacks: '',
  }));
  own = link;
  const news = new NewsOfState();
  const told = new ToldShow(link);
  let remotes = 0;
  let players = 0;
  const others = (): number => remotes + players;
  let isWelcome = false;
  let last = -Infinity;
  let timer = 0;
  let state: PerformanceState | null = null;

  const tellState = (): void => {
    clearTimeout(timer);
    timer = 0;
    if (!state || !isWelcome || others() === 0) return;
    last = performance.now();
    const changed = news.of({ ...state, at: clock.toServer(state.at) });
    if (changed) link.emit('state', changed, false);
  };
  const tellShow = (isAll: boolean): void => {
    if (!isWelcome || others() === 0) return;
    const { id, show } = showStore.getState();
    told.tell(id, show, isAll);
    if (players > 0) void shareFiles(show);
  };
  const tellAll = (): void => {
    tellShow(true);
    news.forget();
    state = engine().lastReport ?? state;
    const whole = state && news.of({ ...state, at: clock.toServer(state.at) });
    if (whole && isWelcome) link.emit('state', whole, true);
  };
  const tellInputs = (): void => {
    if (isWelcome && players > 0) link.emit('inputs', { ...controllers });
  };
  /** Height of the small pictures that the engine makes; 0: none. */
  let lookHeight = 0;
  const showLook = (): void => {
    const { width, height } = showStore.getState().show.canvas;
    const wanted = isWelcome && remotes > 0 ? Math.max(2, Math.round((look.width * height) / width)) : 0;
    if (wanted === lookHeight) return;
    lookHeight = wanted;
    engine().set({ type: 'look', look: wanted ? { ...look, height: wanted } : null });
  };

  link.on('welcome', () => {
    isWelcome = true;
    machinesStore.setState({ link: 'main' });
  });
  link.on('farewell', () => {
    isWelcome = false;
    machinesStore.setState({ link: 'refused', cards: [] });
    setTimeout(() => {
      if (!ownership.getState().elsewhere) link.disconnect().connect();
    }, retryMs);
  });
  link.on('disconnect', () => {
    isWelcome = false;
    remotes = 0;
    players = 0;
    showLook();
    if (machinesStore.getState().link === 'main') machinesStore.setState({ link: 'away', cards: [] });
  });
  link.on('audience', (audience) => {
    const before = others();
    const hadPlayers = players > 0;
    ({ remotes, players } = audience);
    if (before === 0 && others() > 0) tellAll();
    if (!hadPlayers && players > 0) {
      void shareFiles(showStore.getState().show);
      tellInputs();
    }
    showLook();
  });
  link.on('machines', (cards) => {
    // A player that comes is given what it was given before.
    const known = new Set(machinesStore.getState().cards.map(({ machine, since }) => `${machine} ${since}`));
    for (const { machine, role, since } of cards)
      if (role === 'player' && !known.has(`${machine} ${since}`))
        link.emit('give', machine, givenTo(machine));
    machinesStore.setState({ cards });
  });
  link.on('perform', perform);
  engine().on('performance', (report) => {
    state = report.state;
    if (others() === 0 || timer) return;
    const wait = last + leastMs - performance.now();
    if (wait <= 0) tellState();
    else timer = window.setTimeout(tellState, wait);
  });
  onHand(tellInputs);
  engine().on('look', ({ jpeg }) => {
    if (isWelcome && remotes > 0) link.volatile.emit('picture', new Uint8Array(jpeg));
  });
  showStore.subscribe((now, before) => {
    tellShow(false);
    if (now.show.canvas !== before.show.canvas) showLook();
  });
  // Where another tab has the show, that one performs.
  ownership.subscribe(({ elsewhere }) => {
    if (elsewhere) link.disconnect();
    else link.connect();
  });
  if (ownership.getState().elsewhere) link.disconnect();
}
