import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import * as Y from 'yjs';
import { performanceAt } from '../../core/desk/performance-state';
import type { Show } from '../../core/document/types';
import { packHeard } from '../../core/audio/heard';
import { silence } from '../../core/audio/listener';
import { ClockMeter } from '../../core/machines/clock';
import type { StateNews } from '../../core/machines/link';
import { writeShared } from '../../core/machines/show-document';
import { ownClock } from '../../core/own-clock';
import { makeScene, makeShow } from '../../core/show/create';
import { catalogue } from '../../nodes/catalogue';
import { installImageData } from '../testing/fake-box';
import { FakeWorker, installFakeBrowser } from '../testing/fake-browser';
import { FakeLink } from '../testing/fake-link';

installFakeBrowser('/player');
installImageData();
Object.assign(location, { host: 'localhost:4170', protocol: 'http:', hash: '', search: '?name=Left' });
jest.useFakeTimers();

/** The clock of the main machine is ahead by so many milliseconds. */
const ahead = 60_000;
let link: FakeLink;
/** What came by the link said of itself. */
let hello: { token: string };
let about: () => { lacks: string };
jest.unstable_mockModule('../machines/link', () => ({
  openLink: (given: typeof hello, says: typeof about) => {
    [hello, about] = [given, says];
    const clock = new ClockMeter();
    clock.add({ sent: 1000, received: 1000, server: 1000 + ahead });
    return { link, clock };
  },
  playerName: () => 'Left',
  machineId: () => 'player-left',
  setMachineId: () => undefined,
}));
const { begin, enter, playerStore } = await import('./player-session');
const { engine } = await import('../engine/client');

const show: Show = {
  ...makeShow(catalogue, 'Night'),
  scenes: [makeScene(catalogue, 's1', 'One'), makeScene(catalogue, 's2', 'Two')],
};
const document = new Y.Doc();
writeShared(document, null, show);
const whole = Y.encodeStateAsUpdate(document);

/** How the main machine stood two seconds ago, at 20 s of the show. */
const standing = (): StateNews => {
  const state = performanceAt('s2');
  const at = ownClock() + ahead - 2000;
  return { ...state, number: 1, at, transport: { ...state.transport, time: 20 } };
};

const answers = (status: number, body: unknown): void =>
  void Object.assign(globalThis, {
    fetch: () =>
      Promise.resolve(new Response(typeof body === 'string' ? body : JSON.stringify(body), { status })),
  });

let worker: FakeWorker;
beforeEach(async () => {
  localStorage.clear();
  link = new FakeLink();
  playerStore.setState({ phase: 'alone', hasShow: false, hasPicture: false, lacks: {}, fault: '' });
  engine().restart();
  jest.advanceTimersByTime(10000);
  worker = FakeWorker.last;
  worker.say({ type: 'ready' });
  worker.sent.length = 0;
  begin();
  link.say('welcome', { role: 'player', desk: null, server: 'main' });
  // What checks shows is loaded beside.
  await import('../../core/show/validate');
});

const tellAll = (): void => {
  link.say('show', whole, true);
  jest.advanceTimersByTime(50);
  link.say('state', standing(), true);
};

describe('a player', () => {
  test('on the main machine itself needs no pass', () => {
    expect([hello.token, playerStore.getState().phase]).toEqual(['', 'linked']);
  });

  test.each([
    ['show', 'state'],
    ['state', 'show'],
  ])('begins once it has the %s and the %s, at the time of the show by its own clock', (first) => {
    const say = {
      show: () => link.say('show', whole, true),
      state: () => link.say('state', standing(), true),
    };
    const order = first === 'show' ? [say.show, say.state] : [say.state, say.show];
    order[0]();
    jest.advanceTimersByTime(50);
    expect(worker.of('open')).toEqual([]);
    order[1]();
    jest.advanceTimersByTime(50);
    expect(worker.of('open')).toHaveLength(1);
    expect(worker.of('open')[0]).toMatchObject({ program: 's2', show: { name: 'Night' } });
    worker.say({ type: 'opened' });
    const [seek] = worker.of('perform').map(({ command }) => command);
    expect(seek).toMatchObject({ type: 'seek', exactly: true });
    expect((seek as { time: number }).time).toBeCloseTo(22, 0);
    const [{ state }] = worker.of('follow');
    expect(state.at).toBeCloseTo(ownClock() - 2000, -3);
    expect(playerStore.getState().hasShow).toBe(true);
  });

  test('follows what changes, and is told no show twice', () => {
    tellAll();
    link.say('state', { blackout: true, number: 2, at: ownClock() + ahead }, false);
    expect(worker.of('follow').at(-1)!.state).toMatchObject({
      blackout: true,
      program: { program: 's2' },
      number: 2,
    });
    const before = Y.encodeStateVector(document);
    writeShared(document, show, { ...show, name: 'Moth Hours' });
    link.say('show', Y.encodeStateAsUpdate(document, before), false);
    jest.advanceTimersByTime(50);
    expect(worker.of('change')).toHaveLength(1);
    expect(worker.of('open')).toHaveLength(1);
  });

  test('says what it lacks, and goes on with what it has', () => {
    tellAll();
    link.say('show', new Uint8Array([9, 9, 9]), false);
    expect(about().lacks).toMatch(/An edit of the show could not be followed/);
    const damaged = new Y.Doc();
    writeShared(damaged, null, { ...show, canvas: { ...show.canvas, fps: -1 } });
    link.say('show', Y.encodeStateAsUpdate(damaged), true);
    jest.advanceTimersByTime(50);
    expect(about().lacks).toMatch(/could not be followed at canvas/);
    expect(worker.of('open')).toHaveLength(1);
    link.say('show', whole, true);
    jest.advanceTimersByTime(50);
    expect(about().lacks).toBe('');
  });

  test('plays by the hands and the sound of the main machine, and says where too much of it is lost', () => {
    tellAll();
    link.say('inputs', { keys: {} } as never);
    expect(worker.of('controllers')).toHaveLength(1);
    const sound = (number: number): void => link.say('sound', packHeard({ number, state: silence }));
    for (let number = 1; number <= 400; number += 2) sound(number);
    expect(worker.of('sound-heard').length).toBeGreaterThan(100);
    expect(about().lacks).toMatch(/% of what is heard does not arrive/);
    link.say('sound', new Uint8Array(3));
    expect(worker.of('sound-heard').length).toBeLessThan(210);
  });

  test('shows its screen and its name when it is told to, and has another engine', () => {
    link.say('given', 'o2');
    expect(playerStore.getState()).toMatchObject({ screen: 'o2', isNamed: true });
    jest.advanceTimersByTime(7000);
    expect(playerStore.getState().isNamed).toBe(false);
    link.say('identify');
    expect(playerStore.getState().isNamed).toBe(true);
    link.say('restart');
    expect(worker.isTerminated).toBe(true);
  });

  test('goes on alone where the link is cut, and asks for a code where it is sent away', () => {
    tellAll();
    link.say('disconnect');
    expect(playerStore.getState()).toMatchObject({ phase: 'alone', hasShow: true });
    link.active = true;
    link.say('connect_error', { message: 'away' });
    expect(playerStore.getState().phase).toBe('alone');
    link.say('farewell', 'This machine was sent away by the main one.');
    expect(playerStore.getState()).toMatchObject({
      phase: 'code',
      fault: expect.stringMatching('sent away'),
    });
  });

  test('joins with a code, and says why one is refused', async () => {
    answers(401, 'This code is not valid.');
    await enter('111111');
    expect(playerStore.getState()).toMatchObject({ phase: 'code', fault: 'This code is not valid.' });
    answers(200, { token: 'pass', role: 'player' });
    link = new FakeLink();
    await enter('222222');
    expect(hello.token).toBe('pass');
  });
});
