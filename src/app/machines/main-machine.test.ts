import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import * as Y from 'yjs';
import { performanceAt, type PerformanceState } from '../../core/desk/performance-state';
import type { Show } from '../../core/document/types';
import { ClockMeter } from '../../core/machines/clock';
import type { MachineCard, StateNews } from '../../core/machines/link';
import { readShared, writeShared } from '../../core/machines/show-document';
import { makeScene, makeShow } from '../../core/show/create';
import { catalogue } from '../../nodes/catalogue';
import { installImageData } from '../testing/fake-box';
import { FakeWorker, holdIdle, installFakeBrowser } from '../testing/fake-browser';
import { FakeLink } from '../testing/fake-link';

installFakeBrowser();
installImageData();
// The engine's client looks after its worker all the time.
jest.useFakeTimers({
  doNotFake: [
    'setTimeout',
    'clearTimeout',
    'performance',
    'Date',
    'queueMicrotask',
    'nextTick',
    'setImmediate',
  ],
});
Object.assign(globalThis, { fetch: () => Promise.reject(new TypeError('away')) });

let link: FakeLink;
jest.unstable_mockModule('./link', () => ({ openLink: () => ({ link, clock: new ClockMeter() }) }));
/** Copies of followed shows that were opened: the id, and the scene on air. */
const opened: [string, string][] = [];
jest.unstable_mockModule('../data/keeper', () => ({
  loadShow: () => Promise.resolve(true),
  openCopy: (id: string, show: Show, resume: PerformanceState) => {
    opened.push([id, resume.program.program]);
    openShow(id, show);
    return Promise.resolve(true);
  },
}));
const said: string[] = [];
jest.unstable_mockModule('../parts/notices', () => ({
  say: ({ text }: { text: string }) => said.push(text),
}));
const { MainMachine } = await import('./main-machine');
const { editShow, openShow, showStore } = await import('../data/show-store');
const { engine } = await import('../engine/client');
const { perform, performOn } = await import('../engine/perform');
const { setLocked } = await import('../data/lock');
const { keepGiven } = await import('./given');
const { machinesStore } = await import('./machines-store');

const show: Show = {
  ...makeShow(catalogue, 'Night'),
  scenes: [makeScene(catalogue, 's1', 'One'), makeScene(catalogue, 's2', 'Two')],
};

/** Waits until something holds: what checks shows is loaded with the first edit. */
async function until(holds: () => boolean): Promise<void> {
  while (!holds()) await new Promise((resolve) => setTimeout(resolve, 5));
}

/** What the engine of this window reports. */
const report = (change: Partial<PerformanceState>): void =>
  FakeWorker.last.say({
    type: 'performance',
    performed: 0,
    state: { ...performanceAt('s1'), number: 1, at: 1000, ...change },
  });

/** The show as those have it who were told of it. */
function told(): Show {
  const document = new Y.Doc();
  for (const [update, isWhole] of link.of('show') as [Uint8Array, boolean][]) {
    if (isWhole) document.getMap().clear();
    Y.applyUpdate(document, update);
  }
  return readShared(document, null) as Show;
}

/** Shows as another machine writes them: the update of the whole, and that of each edit. */
class Elsewhere {
  private document = new Y.Doc();
  private show: Show | null = null;
  whole(next: Show): Uint8Array {
    writeShared(this.document, this.show, next);
    this.show = next;
    return Y.encodeStateAsUpdate(this.document);
  }
  /** Begins with what was told. */
  take(): void {
    for (const [update] of link.of('show') as [Uint8Array][]) Y.applyUpdate(this.document, update);
    this.show = readShared(this.document, null) as Show;
  }
  edit(change: (show: Show) => Show): Uint8Array {
    const before = Y.encodeStateVector(this.document);
    const next = change(this.show!);
    writeShared(this.document, this.show, next);
    this.show = next;
    return Y.encodeStateAsUpdate(this.document, before);
  }
}

const card = (machine: string, since = 1): MachineCard =>
  ({ machine, role: 'player', name: machine, since }) as MachineCard;

beforeEach(() => {
  // Windows of tests before hear nothing any more.
  link?.say('follows', null);
  link?.say('disconnect');
  link = new FakeLink();
  opened.length = said.length = 0;
  setLocked(false);
  openShow('night', show);
  if (FakeWorker.all.length === 0) {
    engine().open(show, 's1', null);
    FakeWorker.last.say({ type: 'ready' });
    FakeWorker.last.say({ type: 'opened' });
  }
  performOn((command) => engine().perform(command));
  new MainMachine();
  link.say('welcome', { role: 'main', desk: null, server: 'here' });
  link.say('follows', null);
});

describe('a main machine', () => {
  test('tells the server of its show before anybody is there, and then only what changed since', async () => {
    await until(() => link.of('show').length === 1);
    expect(told().name).toBe('Night');
    editShow((open) => void (open.name = 'Moth Hours'));
    expect(link.of('show')).toHaveLength(1);
    link.say('audience', { remotes: 0, players: 1 });
    expect(link.of('show').map(([, isWhole]) => isWhole)).toEqual([true, false]);
    expect(told().name).toBe('Moth Hours');
    // A server that was started anew knows nothing.
    link.say('disconnect');
    link.say('welcome', { role: 'main', desk: null, server: 'here again' });
    link.say('audience', { remotes: 0, players: 1 });
    expect(link.of('show').at(-1)![1]).toBe(true);
  });

  test('tells whoever comes while it is made ready of all of it at once, and not again', async () => {
    const { waiting: idle, release } = holdIdle();
    const scenes = [...show.scenes, ...show.scenes.map((scene) => ({ ...scene, id: `${scene.id}-late` }))];
    openShow('long', { ...show, name: 'Long', scenes });
    // Windows of tests before are ready for nothing: they take no second step.
    const isBegun = (): boolean => {
      const due = idle.splice(0);
      for (const step of due) step();
      return due.length > 0 && idle.length > 0;
    };
    await until(isBegun);
    expect(link.of('show')).toEqual([]);
    link.say('audience', { remotes: 0, players: 1 });
    expect(told().name).toBe('Long');
    while (idle.length) idle.shift()!();
    expect(link.of('show').map(([, isWhole]) => isWhole)).toEqual([true]);
    release();
  });

  test('tells nothing of what is played while nobody is there, then all, and from then on what changes', async () => {
    report({ blackout: false });
    expect(link.of('state')).toEqual([]);
    link.say('audience', { remotes: 1, players: 0 });
    expect(told().name).toBe('Night');
    expect(link.of('state')).toEqual([[expect.objectContaining({ blackout: false, at: 1000 }), true]]);
    editShow((open) => void (open.name = 'Moth Hours'));
    expect(told().name).toBe('Moth Hours');
    expect(link.of('show').map(([, isWhole]) => isWhole)).toEqual([true, false]);
    report({ blackout: true, at: 2000 });
    await until(() => link.of('state').length === 2);
    expect(link.of('state')[1]).toEqual([{ blackout: true, at: 2000, number: 1 }, false]);
    // Another show is told whole.
    openShow('other', { ...show, name: 'Other' });
    expect(link.of('show').at(-1)![1]).toBe(true);
  });

  test('has the engine share its sound and make small pictures only as long as somebody needs them', () => {
    const orders = (): unknown[] =>
      FakeWorker.last.sent.flatMap((message) =>
        message.type === 'share-sound'
          ? [message.on]
          : message.type === 'look'
            ? [message.look !== null]
            : [],
      );
    const before = orders().length;
    link.say('audience', { remotes: 0, players: 1 });
    link.say('audience', { remotes: 1, players: 1 });
    link.say('audience', { remotes: 1, players: 0 });
    link.say('disconnect');
    expect(orders().slice(before)).toEqual([true, true, false, false]);
  });

  test('gives a player that comes, or comes again, the screen that it had', () => {
    keepGiven('left', 'o2');
    link.say('machines', [card('left'), card('right')], []);
    link.say('machines', [card('left'), card('right')], []);
    expect(link.of('give')).toEqual([
      ['left', 'o2'],
      ['right', null],
    ]);
    link.say('machines', [card('left', 2), card('right')], []);
    expect(link.of('give').at(-1)).toEqual(['left', 'o2']);
  });

  test('takes an edit of its spare and tells it to the others', async () => {
    link.say('audience', { remotes: 1, players: 0 });
    const spare = new Elsewhere();
    spare.take();
    link.say(
      'edit',
      spare.edit((open) => ({ ...open, name: 'Moth Hours' })),
    );
    await until(() => showStore.getState().show.name === 'Moth Hours');
    await until(() => link.of('show').length === 2);
    expect(told().name).toBe('Moth Hours');
    expect(link.of('refuse')).toEqual([]);
  });

  test.each([
    ['while the show is locked', /locked on the main machine/, (open: Show) => ({ ...open, name: 'Other' })],
    [
      'that makes no sense',
      /An edit of the spare was not taken \(at .+\)/,
      (open: Show) => ({ ...open, canvas: { ...open.canvas, width: -5 } }),
    ],
  ])('refuses an edit %s, and tells the show as it is', async (_when, words, change) => {
    link.say('audience', { remotes: 1, players: 0 });
    const spare = new Elsewhere();
    spare.take();
    setLocked(words.source.includes('locked'));
    link.say('edit', spare.edit(change as (open: Show) => Show));
    await until(() => link.of('refuse').length === 1);
    expect(link.of('refuse')[0][0]).toMatch(words);
    expect(said).toEqual([link.of('refuse')[0][0]]);
    expect(link.of('show').at(-1)![1]).toBe(true);
    expect(showStore.getState().show).toBe(show);
  });

  test('refuses what is no edit at all', () => {
    link.say('audience', { remotes: 1, players: 0 });
    link.say('edit', new Uint8Array([1, 2, 3, 255, 255]));
    expect(link.of('refuse')).toHaveLength(1);
  });
});

describe('a spare', () => {
  const state: StateNews = { ...performanceAt('s2'), number: 4, at: 5000 };
  const followed = { ...show, name: 'Followed' };
  let main: Elsewhere;

  beforeEach(() => {
    main = new Elsewhere();
    link.say('follows', 'main-1');
  });

  const follow = async (): Promise<void> => {
    link.say('show', main.whole(followed), true);
    link.say('state', state, true);
    await until(() => opened.length > 0);
    await until(() => FakeWorker.last.of('follow').some(({ state: { number } }) => number === 4));
  };

  test('opens a copy of the show once it knows of the performance too, and stands as that does', async () => {
    link.say('show', main.whole(followed), true);
    await until(() => FakeWorker.all.length > 0);
    expect(opened).toEqual([]);
    await follow();
    expect(opened).toEqual([['followed-main-1', 's2']]);
    expect(machinesStore.getState().follows).toBe(true);
    const seek = FakeWorker.last.of('perform').at(-1)!.command;
    expect(seek).toMatchObject({ type: 'seek', exactly: true });
    link.say('state', { blackout: true, number: 5, at: 6000 }, false);
    expect(FakeWorker.last.of('follow').at(-1)!.state).toMatchObject({
      blackout: true,
      program: { program: 's2' },
      at: 6000,
    });
  });

  test('has what is done here done there, and what is edited told as edits', async () => {
    await follow();
    const own = FakeWorker.last.of('perform').length;
    perform({ type: 'blackout', on: true });
    expect(link.of('perform').map(([command]) => command)).toEqual([{ type: 'blackout', on: true }]);
    expect(FakeWorker.last.of('perform')).toHaveLength(own);
    editShow((open) => void (open.name = 'Moth Hours'));
    await until(() => link.of('edit').length > 0);
    expect(link.of('edit').at(-1)![1]).toBe(true);
    expect(link.of('show')).toEqual([]);
  });

  test('shows what is edited there, and says what it cannot follow', async () => {
    await follow();
    link.say(
      'show',
      main.edit((open) => ({ ...open, name: 'Moth Hours' })),
      false,
    );
    await until(() => showStore.getState().show.name === 'Moth Hours');
    link.say('show', new Uint8Array([9, 9, 9]), false);
    link.say(
      'show',
      main.edit((open) => ({ ...open, canvas: { ...open.canvas, fps: -1 } })),
      false,
    );
    link.say(
      'show',
      main.edit((open) => ({ ...open, canvas: show.canvas, name: 'Later' })),
      false,
    );
    await until(() => showStore.getState().show.name === 'Later');
    expect(showStore.getState().show.canvas).toEqual(show.canvas);
  });

  test('performs by itself from where the other one stood when that is gone, and tells of it', async () => {
    await follow();
    const before = FakeWorker.last.of('lead').length;
    link.say('follows', null);
    expect(FakeWorker.last.of('lead')).toHaveLength(before + 1);
    expect(said).toEqual(['This machine performs now.']);
    const own = FakeWorker.last.of('perform').length;
    perform({ type: 'blackout', on: true });
    expect(FakeWorker.last.of('perform')).toHaveLength(own + 1);
    expect(link.of('perform')).toEqual([]);
    link.say('audience', { remotes: 1, players: 0 });
    expect(told().name).toBe('Followed');
    // What a main machine says that is followed no more is not heard.
    link.say('state', { blackout: false, number: 9 }, false);
    expect(FakeWorker.last.of('follow').some(({ state: { number } }) => number === 9)).toBe(false);
  });
});
