import { onlyProgram, performanceAt, type PerformanceState } from '../../core/desk/performance-state';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { makeScene, makeShow } from '../../core/show/create';
import type { Show } from '../../core/document/types';
import type { FromEngine, OutputSpec } from '../../engine/protocol/protocol';
import { catalogue } from '../../nodes/catalogue';
import { FakeBox, installImageData } from '../testing/fake-box';
import { fakeLocks, FakeWorker, installFakeBrowser } from '../testing/fake-browser';

installFakeBrowser();
installImageData();
const { EngineClient } = await import('./client');

const showOf = (name: string): Show => ({
  ...makeShow(catalogue, name),
  scenes: [makeScene(catalogue, 's1', 'One'), makeScene(catalogue, 's2', 'Two')],
});

/** What an engine is told first: this machine’s clock was not set. */
const clock = { type: 'clock', ahead: expect.closeTo(0, -1) };

const report = (change: Partial<PerformanceState> = {}): Extract<FromEngine, { type: 'performance' }> => ({
  type: 'performance',
  performed: 0,
  state: {
    ...performanceAt('s2'),
    number: 1,
    transport: { playing: true, time: 3, ahead: 0, frame: 180, beat: 6, range: null, done: 1, bpm: 120 },
    program: onlyProgram('s2'),
    ...change,
  },
});

describe('the client of the engine', () => {
  let client: InstanceType<typeof EngineClient>;
  /** The page hears that the graphics card is lost. */
  let loseCard: () => void;

  beforeEach(() => {
    jest.useFakeTimers();
    FakeWorker.all.length = 0;
    fakeLocks.waiting.length = 0;
    client = new EngineClient((lost) => (loseCard = lost));
  });
  afterEach(() => {
    jest.clearAllTimers();
    jest.useRealTimers();
  });

  const ready = (): FakeWorker => {
    FakeWorker.last.say({ type: 'ready' });
    return FakeWorker.last;
  };
  /** Has the program painted in a box. */
  const show = (use: OutputSpec['use']): { box: FakeBox; id: string } => {
    const box = new FakeBox();
    const id = client.outputs.add({
      source: { type: 'program' },
      use,
      box: () => box.element,
      size: () => ({ width: 640, height: 360 }),
    });
    return { box, id };
  };
  /** The engine dies: its lock is freed, and another is started after a moment. */
  const die = (): FakeWorker => {
    fakeLocks.waiting.at(-1)!();
    jest.advanceTimersByTime(10000);
    return FakeWorker.last;
  };

  test('sends nothing before the engine is ready, and all of it then', () => {
    const show = showOf('Night');
    client.open(show, 's1');
    client.watch({ scene: 's1', cards: [], bench: null, inspected: null });
    expect(FakeWorker.last.sent).toEqual([]);
    const worker = ready();
    expect(worker.sent).toEqual([
      clock,
      { type: 'open', show, program: 's1', resume: null },
      { type: 'watch', watch: { scene: 's1', cards: [], bench: null, inspected: null } },
    ]);
  });

  test('keeps what is done while no engine is there, and does it once one has the show', () => {
    client.open(showOf('Night'), 's1');
    client.perform({ type: 'play', playing: false });
    client.perform({ type: 'blackout' });
    client.inject('context-loss');
    const first = ready();
    expect(first.sent.map(({ type }) => type)).toEqual([
      'clock',
      'open',
      'perform',
      'perform',
      'inject-fault',
    ]);
    first.say({ ...report(), performed: 2 });
    fakeLocks.waiting.at(-1)!();
    client.perform({ type: 'blackout' });
    jest.advanceTimersByTime(10000);
    const second = ready();
    expect(second.of('perform').map(({ command }) => command)).toEqual([{ type: 'blackout' }]);
    client.perform({ type: 'step' });
    expect(second.of('perform')).toHaveLength(2);
  });

  test('has the next engine do what the last one did not hear, but nothing twice', () => {
    client.open(showOf('Night'), 's1');
    const first = ready();
    client.perform({ type: 'blackout' });
    first.say({ ...report(), performed: 1 });
    // It hangs, or is gone without a word.
    client.perform({ type: 'play', playing: false });
    fakeLocks.waiting.at(-1)!();
    client.perform({ type: 'step' });
    jest.advanceTimersByTime(10000);
    const second = ready();
    expect(second.of('perform').map(({ command }) => command)).toEqual([
      { type: 'play', playing: false },
      { type: 'step' },
    ]);
    // What it has heard is done; what ended two engines in a row is left out.
    second.say({ ...report(), performed: 0 });
    fakeLocks.waiting.at(-1)!();
    jest.advanceTimersByTime(10000);
    expect(
      ready()
        .of('perform')
        .map(({ command }) => command),
    ).toEqual([{ type: 'step' }]);
  });

  test('forgets what was done to another show', () => {
    client.open(showOf('Night'), 's1');
    client.perform({ type: 'blackout' });
    client.open(showOf('Day'), 's1');
    expect(ready().of('perform')).toEqual([]);
  });

  test.each(['before', 'after'])(
    'does to the first show what was pressed before it was there, after what an earlier page left: the engine is ready %s',
    (when) => {
      if (when === 'before') ready();
      client.perform({ type: 'blackout' });
      client.open(showOf('Night'), 's1', null, [{ type: 'step' }]);
      const { sent } = when === 'before' ? FakeWorker.last : ready();
      expect(sent.filter(({ type }) => type === 'open' || type === 'perform')).toMatchObject([
        { type: 'open' },
        { type: 'perform', command: { type: 'step' } },
        { type: 'perform', command: { type: 'blackout' } },
      ]);
    },
  );

  test('sends commands as they are', () => {
    client.open(showOf('Night'), 's1');
    const worker = ready();
    worker.sent.length = 0;
    client.perform({ type: 'take', scene: 's2', seconds: 1 });
    client.send({ type: 'clear-return', scene: 's1', wire: 'w1' });
    expect(worker.sent).toEqual([
      { type: 'perform', command: { type: 'take', scene: 's2', seconds: 1 } },
      { type: 'clear-return', scene: 's1', wire: 'w1' },
    ]);
  });

  test('sends what differs between two states of the show, and nothing if nothing does', () => {
    const show = showOf('Night');
    client.open(show, 's1');
    const worker = ready();
    client.update(show);
    expect(worker.of('change')).toEqual([]);
    client.update({ ...show, name: 'Late night' });
    expect(worker.of('change')).toHaveLength(1);
    client.update({ ...show, name: 'Late night' });
    expect(worker.of('change')).toHaveLength(1);
  });

  describe('where the engine dies', () => {
    test('tells the next one the show as it is, the last of each setting, and where the performance stood', () => {
      const show = showOf('Night');
      client.open(show, 's1');
      const first = ready();
      client.set({ type: 'work-scale', scale: 0.5 });
      client.set({ type: 'work-scale', scale: 0.25 });
      client.set({ type: 'hear', on: true });
      client.send({ type: 'clear-return', scene: 's1', wire: 'w1' });
      const edited = { ...show, name: 'Edited' };
      client.update(edited);
      const { state } = report({ blackout: true });
      first.say(report({ blackout: true }));
      const second = die();
      expect(second).not.toBe(first);
      expect(first.isTerminated).toBe(true);
      expect(second.sent).toEqual([]);
      ready();
      expect(second.sent).toEqual([
        clock,
        { type: 'open', show: edited, program: 's1', resume: state },
        { type: 'work-scale', scale: 0.25 },
        { type: 'hear', on: true },
      ]);
      expect(client.restartCount).toBe(1);
    });

    test('another show begins afresh in the next one', () => {
      client.open(showOf('Night'), 's1');
      ready().say(report({ blackout: true }));
      client.open(showOf('Day'), 's2');
      die();
      expect(ready().of('open')).toMatchObject([{ show: { name: 'Day' }, program: 's2', resume: null }]);
    });

    test('says that it stopped, and that it is back', () => {
      const told: string[] = [];
      client.on('graphics', ({ state }) => told.push(state));
      client.open(showOf('Night'), 's1');
      ready();
      die();
      ready();
      expect(told).toEqual(['lost', 'back']);
    });

    test('waits longer each time it dies at once', () => {
      ready();
      const count = (): number => FakeWorker.all.length;
      for (const wait of [100, 200, 400]) {
        const before = count();
        fakeLocks.waiting.at(-1)!();
        jest.advanceTimersByTime(wait - 1);
        expect(count()).toBe(before);
        jest.advanceTimersByTime(1);
        expect(count()).toBe(before + 1);
        ready();
      }
    });

    test('a fault that the worker reports counts as its death', () => {
      const first = ready();
      const log = jest.spyOn(console, 'error').mockImplementation(() => undefined);
      first.onerror!({ message: 'boom', preventDefault: () => undefined });
      jest.advanceTimersByTime(200);
      expect(FakeWorker.last).not.toBe(first);
      log.mockRestore();
    });

    test('hands files and outputs to the next one, with a fresh canvas each', () => {
      client.giveFile('f1', 'wax.png', null);
      const { box, id } = show('stage');
      const first = ready();
      expect(first.of('file')).toEqual([{ type: 'file', id: 'f1', name: 'wax.png', blob: null }]);
      expect(first.of('output-add')).toMatchObject([
        {
          id,
          spec: { source: { type: 'program' }, use: 'stage', width: 640, mapping: { part: [0, 0, 1, 1] } },
        },
      ]);
      expect(first.transferred.flat()).toEqual([box.made[0].offscreen]);
      client.outputs.retarget(id, { type: 'next' });
      client.outputs.resize(id, 800, 450);
      expect(first.of('output-change')).toEqual([
        { type: 'output-change', id, change: { source: { type: 'next' } } },
        { type: 'output-change', id, change: { width: 800, height: 450 } },
      ]);
      const second = die();
      ready();
      expect(box.made).toHaveLength(2);
      expect(second.of('output-add')[0].spec.source).toEqual({ type: 'next' });
      client.outputs.remove(id);
      expect(second.of('output-remove')).toEqual([{ type: 'output-remove', id }]);
      expect(box.canvases).toEqual([]);
      die();
      ready();
      expect(box.made).toHaveLength(2);
    });

    test('paints outputs of the desk by pictures that the engine gives it, and says that it has taken them', () => {
      const { box, id } = show('desk');
      const worker = ready();
      expect(worker.of('output-add')).toMatchObject([{ id, canvas: null }]);
      let open = 0;
      const give = (to: string, share: [number, number] = [0.5, 1]): void => {
        open++;
        const bitmap = { close: () => open-- } as unknown as ImageBitmap;
        worker.say({ type: 'pictures', pictures: [{ id: to, bitmap, share }] });
      };
      give(id);
      const [canvas] = box.canvases;
      expect([canvas.draws, canvas.style.width]).toEqual([1, '200%']);
      worker.say({ type: 'output-lost', id, dark: false });
      give(id);
      // The one before goes once the next has a picture.
      expect(box.canvases.map(({ draws }) => draws)).toEqual([1]);
      expect(box.canvases[0]).not.toBe(canvas);
      client.outputs.remove(id);
      give(id);
      expect([open, worker.of('taken').length]).toEqual([0, 3]);
    });

    test('an output that lost its canvas with the graphics card is given another; a stand-in is seen until that is painted', async () => {
      const settled = async (): Promise<void> => {
        for (let k = 0; k < 5; k++) await Promise.resolve();
      };
      const { box, id } = show('stage');
      const worker = ready();
      worker.say({ type: 'output-painted', id, share: [0.5, 1] });
      const picture = { width: 1, height: 1, rgba: new Uint8Array([255, 128, 0, 255]) };
      worker.say({ type: 'stand-in', id, picture });
      worker.say({ type: 'output-lost', id, dark: false });
      const [fresh, shown] = box.canvases;
      expect(box.canvases).toHaveLength(2);
      expect(Array.from(shown.drawn!)).toEqual([255, 128, 0, 255]);
      expect(worker.transferred.at(-1)).toEqual([fresh.offscreen]);
      expect(worker.of('output-add').at(-1)!.spec).toMatchObject({
        source: { type: 'program' },
        use: 'stage',
        width: 640,
      });
      fresh.arrive();
      worker.say({ type: 'output-painted', id, share: [1, 1] });
      expect(box.canvases).toEqual([fresh]);
      await settled();
      expect(box.style.backgroundImage).toMatch(/blob:/);
      // A stage that is dark has nothing behind it, and what comes late is not put there.
      worker.say({ type: 'stand-in', id, picture });
      worker.say(report({ blackout: true }));
      await settled();
      expect(box.style.backgroundImage).toBe('');
      worker.say({ type: 'stand-in', id, picture });
      worker.say(report());
      await settled();
      expect(box.style.backgroundImage).toBe('');
      // One that is dark shows no stand-in.
      worker.say({ type: 'output-lost', id, dark: true });
      expect(box.canvases.at(-1)).toBe(fresh);
      client.outputs.remove(id);
      worker.say({ type: 'output-lost', id, dark: false });
      expect(box.canvases).toEqual([]);
    });

    test('a stand-in is seen as soon as the page hears of a lost card, and goes if the engine has lost nothing', () => {
      const [box, dark] = [new FakeBox(), new FakeBox()];
      const size = (): { width: number; height: number } => ({ width: 640, height: 360 });
      const ids = [
        client.outputs.add({
          source: { type: 'scene', scene: 's1', without: null },
          use: 'desk',
          box: () => box.element,
          size,
        }),
        client.outputs.add({ source: { type: 'program' }, use: 'stage', box: () => dark.element, size }),
      ];
      const worker = ready();
      worker.say(report({ blackout: true }));
      for (const id of ids) {
        worker.say({ type: 'output-painted', id, share: [1, 1] });
        worker.say({
          type: 'stand-in',
          id,
          picture: { width: 1, height: 1, rgba: new Uint8Array(4).fill(255) },
        });
      }
      loseCard();
      const [live, cover] = box.canvases;
      expect(Array.from(cover.drawn!)).toEqual([255, 255, 255, 255]);
      expect(dark.canvases).toHaveLength(1);
      jest.advanceTimersByTime(5100);
      expect(box.canvases).toEqual([live]);
      // The engine has said so, and what it paints next is not covered any more.
      worker.say({ type: 'output-lost', id: ids[0], dark: false });
      const known = box.canvases;
      loseCard();
      expect(box.canvases).toEqual(known);
    });

    test('an output whose place is gone is not handed over', () => {
      client.outputs.add({
        source: { type: 'program' },
        use: 'stage',
        box: () => null,
        size: () => ({ width: 1, height: 1 }),
      });
      expect(ready().of('output-add')).toEqual([]);
    });
  });

  describe('a request', () => {
    const ask = (): Promise<{ text: string }> => client.request({ type: 'shader', scene: 's1', node: 'n1' });

    test('waits for a show, and is answered by its number', async () => {
      const [first, second] = [ask(), ask()];
      const worker = ready();
      expect(worker.of('request')).toEqual([]);
      client.open(showOf('Night'), 's1');
      const [a, b] = worker.of('request').map(({ id }) => id);
      worker.say({ type: 'answer', id: b, answer: { type: 'shader', text: 'second' } });
      worker.say({ type: 'answer', id: a, answer: { type: 'shader', text: 'first' } });
      expect((await first).text).toBe('first');
      expect((await second).text).toBe('second');
    });

    test('that is refused says why', async () => {
      client.open(showOf('Night'), 's1');
      const worker = ready();
      const asked = ask();
      worker.say({ type: 'refusal', id: worker.of('request')[0].id, message: 'There is no such node.' });
      await expect(asked).rejects.toThrow('There is no such node.');
    });

    test('ends when the engine dies, and when it takes too long', async () => {
      client.open(showOf('Night'), 's1');
      ready();
      const lost = ask();
      const lostToo = expect(lost).rejects.toThrow(/stopped before/);
      die();
      await lostToo;
      ready();
      const slow = expect(ask()).rejects.toThrow(/in time/);
      jest.advanceTimersByTime(20001);
      await slow;
    });

    test('whose answer comes late changes nothing', async () => {
      client.open(showOf('Night'), 's1');
      const worker = ready();
      const slow = expect(ask()).rejects.toThrow(/in time/);
      jest.advanceTimersByTime(20001);
      await slow;
      const { id } = worker.of('request')[0];
      expect(() =>
        worker.say({ type: 'answer', id, answer: { type: 'shader', text: 'late' } }),
      ).not.toThrow();
    });
  });

  test('an engine that says nothing for long is replaced; one that speaks is not', () => {
    client.open(showOf('Night'), 's1');
    const first = ready();
    for (let k = 0; k < 40; k++) {
      jest.advanceTimersByTime(1000);
      first.say(report());
    }
    expect(FakeWorker.last).toBe(first);
    jest.advanceTimersByTime(23000);
    expect(first.isTerminated).toBe(true);
  });

  test('listeners hear their own type only, until they leave', () => {
    const heard: number[] = [];
    const off = client.on('performance', ({ state }) => heard.push(state.transport.time));
    const worker = ready();
    worker.say(report());
    worker.say({ type: 'dark', scene: 's1', dark: true });
    off();
    worker.say(report());
    expect(heard).toEqual([3]);
    expect(client.lastReport?.program.program).toBe('s2');
  });
});
