import * as Y from 'yjs';
import { ownClock } from '../../core/own-clock';
import { timeAt, type PerformanceState } from '../../core/desk/performance-state';
import type { Audience, MachineCard, StateNews } from '../../core/machines/link';
import { HeardState, NewsOfState } from '../../core/machines/news';
import type { Show } from '../../core/document/types';
import type { LookOrder } from '../../engine/protocol/protocol';
import { catalogue } from '../../nodes/catalogue';
import { loadShow, openCopy } from '../data/keeper';
import { lockStore } from '../data/lock';
import { ownership } from '../data/ownership';
import { sessionStore } from '../data/session';
import { showStore, takeFromOthers } from '../data/show-store';
import { engine } from '../engine/client';
import { liveStore } from '../engine/live';
import { perform, performOn } from '../engine/perform';
import { controllers, onHand } from '../inputs/controllers';
import { say } from '../parts/notices';
import { FileFetcher } from './fetch-files';
import { givenTo, keepGiven } from './given';
import { shareFiles } from './share-files';
import { lookAtNetwork, machinesStore, showMachine } from './machines-store';
import { openLink, type Link } from './link';
import { SharedShow } from './shared-show';
import { runWhenIdle } from './when-idle';

/** What checks shows is large, and is needed with the first edit of somebody else. */
const checker = () => import('../../core/show/validate');

/** Milliseconds between two reports of the performance to other machines. */
const leastMs = 33;
/** Milliseconds for which edits of others are gathered. */
const gatherMs = 40;
/** Most bytes of a part of an edit: messages over the network have a largest size. */
const partBytes = 48 * 1024;
/** Small pictures of the program for those who look on: many a second for remote desks, now and then for the main machine that is followed. */
const look = { width: 256, perSecond: 8, following: 0.5 };
/** Least milliseconds between two that the main machine is told. */
const shownMs = 1000;
/** Milliseconds after which the show is made ready for whoever may come, whenever the page has time, and most of them that each part of it waits for that. */
const ready = { afterMs: 3000, latestMs: 2000 };
/** Milliseconds until a window that another one keeps from being the main machine tries again. */
const retryMs = 5000;

/** Where the performer is in this window: the view, and in Build the scene. */
function whereNow(): string {
  const view = location.pathname.slice(1);
  const name = view.charAt(0).toUpperCase() + view.slice(1);
  if (view !== 'build') return name;
  const { sceneId } = sessionStore.getState();
  const scene = showStore.getState().show.scenes.find(({ id }) => id === sceneId);
  return scene ? `${name} · ${scene.name}` : name;
}

/**
 * This window among other machines. It performs, tells them of the show and the performance, and carries out what they do; or it follows another main
 * machine as its spare: shows what is performed there, has what is done here done there, and takes over when it is told to.
 */
export class MainMachine {
  private readonly opened = openLink({ role: 'main', name: 'Main', token: '' }, () => ({
    framesPerSecond: liveStore.getState().stats?.framesPerSecond ?? 0,
    lacks: [...this.lacks.values()].join(' ').slice(0, 300),
    where: whereNow().slice(0, 120),
  }));
  readonly link: Link = this.opened.link;
  private readonly clock = this.opened.clock;
  private readonly news = new NewsOfState();
  /** How the main machine that is followed stands. */
  private readonly heard = new HeardState(this.clock);
  private readonly shared = new SharedShow((update, isWhole) => this.tellUpdate(update, isWhole));
  private readonly lacks = new Map<string, string>();
  private readonly files = new FileFetcher('', (of, sentence) => {
    if (sentence) this.lacks.set(of, sentence);
    else this.lacks.delete(of);
  });
  private audience: Audience = { remotes: 0, players: 0 };
  private isWelcome = false;
  private last = -Infinity;
  private timer = 0;
  /** How this machine performs. */
  private state: PerformanceState | null = null;
  /** The show that the server was told of over this link; empty: none. */
  private told = '';
  private endReadying: () => void = () => undefined;
  /** The small pictures that the engine makes; null: none. */
  private look: LookOrder | null = null;
  private sharesSound = false;
  private lastShown = -Infinity;
  /** Id of the main machine that is followed; null: this one performs. */
  private follows: string | null = null;
  /** Id of the show that is followed, once it is open. */
  private copy: string | null = null;
  private isOpening = false;
  /** The main machine did not take an edit of this one: it tells of the whole show next, without that. */
  private isRefused = false;
  /** It performed since it last followed: what was edited then is kept beside what is followed. */
  private hasLed = false;
  private reading = 0;
  /** Edits of the spare that were not looked at yet. */
  private edits: Uint8Array[] = [];

  constructor() {
    const { link } = this;
    link.on('welcome', () => {
      this.isWelcome = true;
      this.told = '';
      this.readyLater();
      machinesStore.setState({ link: 'main' });
    });
    link.on('farewell', () => {
      this.isWelcome = false;
      machinesStore.setState({ link: 'refused', cards: [] });
      setTimeout(() => {
        if (!ownership.getState().elsewhere) link.disconnect().connect();
      }, retryMs);
    });
    link.on('disconnect', () => {
      this.isWelcome = false;
      this.audience = { remotes: 0, players: 0 };
      this.showLook();
      this.showSound();
      if (machinesStore.getState().link === 'main') machinesStore.setState({ link: 'away', cards: [] });
    });
    link.on('audience', (audience) => this.meet(audience));
    link.on('machines', (cards, elsewhere) => this.list(cards, elsewhere));
    link.on('shown', (machine, jpeg) => showMachine(machine, new Uint8Array(jpeg)));
    link.on('perform', (commands) => {
      if (this.follows === null) for (const command of commands) perform(command);
    });
    link.on('edit', (update) => this.takeEdit(new Uint8Array(update)));
    link.on('follows', (main) => this.setFollows(main));
    link.on('show', (update, isWhole) => this.hearShow(new Uint8Array(update), isWhole));
    link.on('state', (news, isWhole) => this.hearState(news, isWhole));
    link.on('inputs', (heard) => {
      if (this.follows !== null) engine().set({ type: 'controllers', controllers: heard });
    });
    link.on('sound', (packed) => {
      if (this.follows !== null) engine().send({ type: 'sound-heard', packed: new Uint8Array(packed) });
    });
    link.on('gives', (given) => {
      for (const [machine, screen] of Object.entries(given)) keepGiven(machine, screen);
    });
    link.on('refused', (sentence) => {
      this.isRefused = true;
      say({ tone: 'warning', text: sentence });
    });
    engine().on('performance', ({ state }) => {
      if (this.follows !== null) return;
      this.state = state;
      if (this.others === 0 || this.timer) return;
      const wait = this.last + leastMs - performance.now();
      if (wait <= 0) this.tellState();
      else this.timer = window.setTimeout(() => this.tellState(), wait);
    });
    // A fresh engine stands where it was told to last.
    engine().on('ready', () => setTimeout(() => this.showFollowed()));
    onHand(() => this.tellInputs());
    engine().on('sound-shared', ({ packed }) => {
      if (this.isWelcome && this.follows === null) link.volatile.emit('sound', packed);
    });
    engine().on('look', ({ jpeg }) => {
      const picture = new Uint8Array(jpeg);
      if (this.isWelcome && this.audience.remotes > 0) link.volatile.emit('picture', picture);
      if (this.isWelcome && this.follows !== null && performance.now() - this.lastShown > shownMs) {
        this.lastShown = performance.now();
        link.volatile.emit('shown', picture);
      }
    });
    showStore.subscribe((now, before) => {
      if (this.follows === null) this.tellShow(false);
      else this.tellEdit(now.id, before.id);
      if (now.id !== before.id) this.readyLater();
      if (now.show.canvas !== before.show.canvas) this.showLook();
    });
    // Where another tab has the show, that one performs.
    ownership.subscribe(({ elsewhere }) => {
      if (elsewhere) link.disconnect();
      else link.connect();
    });
    if (ownership.getState().elsewhere) link.disconnect();
  }

  private get others(): number {
    return this.audience.remotes + this.audience.players;
  }

  // What a main machine tells.

  private tellState(): void {
    clearTimeout(this.timer);
    this.timer = 0;
    if (!this.state || !this.isWelcome || this.others === 0 || this.follows !== null) return;
    this.last = performance.now();
    const changed = this.news.of({ ...this.state, at: this.clock.toServer(this.state.at) });
    if (changed) this.link.emit('state', changed, false);
  }

  /** Tells the server, and with it all who are there, of the show: what was written since, or all of it. */
  private tellShow(isAll: boolean): void {
    if (!this.isWelcome || this.others === 0) return;
    this.writeShow(isAll);
    if (this.audience.players > 0) void shareFiles(showStore.getState().show);
  }

  private writeShow(isAll: boolean): void {
    const { id, show } = showStore.getState();
    if (isAll || this.told !== id) this.shared.begin(show);
    else this.shared.write(show);
    this.told = id;
  }

  /** Tells the server of a show before anybody is there: to write all of a large one takes half a second, for which whoever comes need not wait. */
  private readyLater(): void {
    this.endReadying();
    const timer = setTimeout(
      () => (this.endReadying = runWhenIdle(this.readyShow(), ready.latestMs)),
      ready.afterMs,
    );
    this.endReadying = () => clearTimeout(timer);
  }

  private *readyShow(): Generator<void> {
    const { id, show } = showStore.getState();
    // Who comes meanwhile is told of all of it at once.
    const isWanted = (): boolean => this.isWelcome && this.follows === null && this.told !== id;
    const parts = this.shared.beginByParts(show);
    while (isWanted()) {
      if (parts.next().done) this.told = id;
      else yield;
    }
  }

  private tellAll(): void {
    this.tellShow(false);
    this.news.forget();
    this.state = engine().lastReport ?? this.state;
    const whole = this.state && this.news.of({ ...this.state, at: this.clock.toServer(this.state.at) });
    if (whole && this.isWelcome) this.link.emit('state', whole, true);
  }

  private tellInputs(): void {
    if (this.isWelcome && this.audience.players > 0 && this.follows === null)
      this.link.emit('inputs', { ...controllers });
  }

  private showLook(): void {
    const { width, height } = showStore.getState().show.canvas;
    const perSecond = this.audience.remotes > 0 ? look.perSecond : this.follows !== null ? look.following : 0;
    const wanted = this.isWelcome && perSecond ? Math.max(2, Math.round((look.width * height) / width)) : 0;
    const order = wanted ? { width: look.width, height: wanted, perSecond } : null;
    if (JSON.stringify(order) === JSON.stringify(this.look)) return;
    this.look = order;
    engine().set({ type: 'look', look: order });
  }

  /** Has the engine tell what it hears as long as others need it. */
  private showSound(): void {
    const on = this.isWelcome && this.audience.players > 0 && this.follows === null;
    if (on === this.sharesSound) return;
    this.sharesSound = on;
    engine().set({ type: 'share-sound', on });
  }

  private meet(audience: Audience): void {
    const before = this.others;
    const hadPlayers = this.audience.players > 0;
    this.audience = audience;
    if (this.follows === null) {
      if (before === 0 && this.others > 0) this.tellAll();
      if (!hadPlayers && audience.players > 0) {
        void shareFiles(showStore.getState().show);
        this.tellInputs();
      }
    }
    this.showLook();
    this.showSound();
  }

  private list(cards: MachineCard[], elsewhere: MachineCard[]): void {
    // A player that comes is given what it was given before.
    const there = new Set(cards.map(({ machine }) => machine));
    for (const machine of Object.keys(machinesStore.getState().pictures))
      if (!there.has(machine)) showMachine(machine, null);
    const known = new Set(machinesStore.getState().cards.map(({ machine, since }) => `${machine} ${since}`));
    for (const { machine, role, since } of cards)
      if (role === 'player' && !known.has(`${machine} ${since}`))
        this.link.emit('give', machine, givenTo(machine));
    machinesStore.setState({ cards, elsewhere });
  }

  /** What was done to the show on the spare: looked at, taken, and told to the others; or refused, and then the spare has the whole show again. */
  private takeEdit(update: Uint8Array): void {
    if (this.follows !== null) return;
    try {
      this.shared.take(update, false);
      this.edits.push(update);
    } catch (error) {
      this.refuse((error as Error).message);
      return;
    }
    this.reading ||= window.setTimeout(() => void this.readEdits(), gatherMs);
  }

  private async readEdits(): Promise<void> {
    const { checkShow } = await checker();
    this.reading = 0;
    const next = this.shared.read();
    if (!next || this.follows !== null) return;
    if (lockStore.getState().locked) {
      this.refuse('the show is locked on the main machine');
      return;
    }
    catalogue.take(next.modules);
    const finding = checkShow(next, catalogue).find(({ level }) => level === 'error');
    if (finding) {
      catalogue.take(showStore.getState().show.modules);
      this.refuse(`at ${finding.where}: ${finding.what}`);
      return;
    }
    const edits = this.edits.splice(0);
    this.shared.hold(next);
    takeFromOthers(next);
    if (edits.length > 0) this.link.emit('show', Y.mergeUpdates(edits), false);
    void this.files.fetch(next);
  }

  private refuse(why: string): void {
    this.edits = [];
    const sentence = `An edit of the spare was not taken (${why}).`;
    say({ tone: 'warning', text: sentence });
    this.link.emit('refuse', sentence);
    this.tellShow(true);
  }

  // What a spare hears.

  private setFollows(main: string | null): void {
    if (main === this.follows) return;
    const wasFollowing = this.follows !== null;
    this.follows = main;
    this.showSound();
    this.showLook();
    machinesStore.setState({ follows: main !== null });
    void lookAtNetwork();
    if (main !== null) {
      this.copy = null;
      this.state = null;
      this.heard.forget();
      performOn((command) => this.link.emit('perform', command, () => undefined));
    } else if (wasFollowing) this.lead();
  }

  /** From here on this window performs, from where the other one stood. */
  private lead(): void {
    performOn((command) => engine().perform(command));
    engine().send({ type: 'lead' });
    // The server knows what was followed, and may lack what was written here last.
    this.told = '';
    this.readyLater();
    this.copy = null;
    this.news.forget();
    this.hasLed = true;
    say({ tone: 'warning', stays: true, text: 'This machine performs now.' });
  }

  private tellUpdate(update: Uint8Array, isWhole: boolean): void {
    if (this.follows === null) {
      this.link.emit('show', update, isWhole);
      return;
    }
    for (let from = 0; from < update.length; from += partBytes)
      this.link.emit('edit', update.slice(from, from + partBytes), from + partBytes >= update.length);
  }

  private tellEdit(id: string, before: string): void {
    if (this.copy === null) return;
    if (id === this.copy) {
      const { show } = showStore.getState();
      this.shared.write(show);
      void shareFiles(show);
    } else if (before === this.copy) {
      say({
        tone: 'warning',
        text: 'This machine follows another one. Stop following it in Machines to open other shows.',
      });
      void loadShow(this.copy).then(() => this.showFollowed());
    }
  }

  private hearShow(update: Uint8Array, isWhole: boolean): void {
    if (this.follows === null) return;
    try {
      this.shared.hear(update, isWhole, this.copy !== null && !this.isRefused);
      if (isWhole) this.isRefused = false;
    } catch (error) {
      this.lacks.set('show', `An edit of the show could not be followed (${(error as Error).message}).`);
      return;
    }
    this.reading ||= window.setTimeout(() => void this.readShow(), isWhole ? 0 : gatherMs);
  }

  private async readShow(): Promise<void> {
    const { checkShow } = await checker();
    this.reading = 0;
    const { follows } = this;
    const next = this.shared.read();
    if (!next || follows === null) return;
    catalogue.take(next.modules);
    const finding = checkShow(next, catalogue).find(({ level }) => level === 'error');
    if (finding) {
      this.lacks.set('show', `The show could not be followed at ${finding.where}: ${finding.what}`);
      return;
    }
    this.lacks.delete('show');
    if (this.copy === null) {
      const now = this.heard.here;
      if (now && !this.isOpening) await this.openCopy(follows, next, now);
    } else {
      this.shared.hold(next);
      takeFromOthers(next);
    }
    void this.files.fetch(next);
  }

  /** Opens the show that is followed; this browser keeps it, so that it is here when the other machine is not. */
  private async openCopy(follows: string, show: Show, now: PerformanceState): Promise<void> {
    const id = `followed-${follows}`;
    this.isOpening = true;
    const isOpen = await openCopy(id, show, now, this.hasLed).finally(() => (this.isOpening = false));
    if (!isOpen || this.follows !== follows) return;
    this.hasLed = false;
    this.copy = id;
    this.shared.hold(showStore.getState().show);
    // What has a memory comes to what it would be had it been here from the start.
    engine().perform({ type: 'seek', time: timeAt(now, ownClock()), exactly: true });
    this.showFollowed();
    // What was written meanwhile.
    void this.readShow();
  }

  private hearState(news: StateNews, isWhole: boolean): void {
    if (this.follows === null) return;
    this.heard.take(news, isWhole);
    if (this.copy !== null) this.showFollowed();
    else this.reading ||= window.setTimeout(() => void this.readShow(), 0);
  }

  private showFollowed(): void {
    const state = this.heard.here;
    if (this.follows !== null && this.copy !== null && state) engine().send({ type: 'follow', state });
  }
}

/** This window among machines, once its link is opened. */
let own: MainMachine | null = null;

/** Opens the link of this window to other machines; called once. */
export function keepMachines(): void {
  own ??= new MainMachine();
}

/** Gives a player a screen of the wall; null: what is on air. */
export function giveScreen(machine: string, screen: string | null): void {
  keepGiven(machine, screen);
  own?.link.emit('give', machine, screen);
}

/** Has a player show its name for a while. */
export const identify = (machine: string): void => void own?.link.emit('identify', machine);
/** Has a player replace its engine. */
export const restartEngine = (machine: string): void => void own?.link.emit('restart', machine);

/** Ends a remote desk: it has to be let in again. */
export const dismissMachine = (machine: string): void => void own?.link.emit('dismiss', machine);

/** Where this machine follows another one, it performs from now on, and the other one follows. */
export const takeTheLead = (): void => void own?.link.emit('lead');
