import { afterAll, beforeAll, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { InputEvent } from '../../core/inputs/inputs';
import { makeShow } from '../../core/show/create';
import { addNode, setFormula } from '../../core/show/edit';
import type { Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { FakeTarget, FakeWorker, fakeWindow, installFakeBrowser } from '../testing/fake-browser';

jest.useFakeTimers();
installFakeBrowser();
const { controllers, heard, onHand, onHeard } = await import('./controllers');
const { isTyping, listenToKeys, listenToPointer, moveKey } = await import('./keys-pointer');
const { canLearn, driveBy, waitToLearn } = await import('./learn');
const { keepHand } = await import('./kept-controllers');
const { openShow, showStore } = await import('../data/show-store');
const { engine } = await import('../engine/client');

const settle = (): void => void jest.advanceTimersByTime(10);
const sent = () => FakeWorker.last.of('controllers').map((message) => message.controllers);

beforeAll(() => {
  engine();
  FakeWorker.last.say({ type: 'ready' });
});
afterAll(() => void jest.useRealTimers());
beforeEach(() => {
  for (const code of Object.keys(controllers.keys)) moveKey(code, false);
  settle();
  FakeWorker.last.sent.length = 0;
});

describe('keys', () => {
  test('go down and up, and count how often', () => {
    const before = controllers.keys.KeyA?.presses ?? 0;
    moveKey('KeyA', true);
    moveKey('KeyA', true);
    expect(controllers.keys.KeyA).toEqual({ down: true, presses: before + 1 });
    moveKey('KeyA', false);
    expect(controllers.keys.KeyA).toEqual({ down: false, presses: before + 1 });
  });

  test('that are pressed together travel as one message', () => {
    for (const code of ['KeyA', 'KeyB', 'KeyC']) moveKey(code, true);
    settle();
    expect(sent()).toHaveLength(1);
    expect(sent()[0].keys).toMatchObject({ KeyA: { down: true }, KeyC: { down: true } });
  });

  test('of a window play, but not with a modifier, while typing, or on a button', () => {
    const target = new FakeTarget();
    const stop = listenToKeys(target as unknown as Window);
    const key = (code: string, more: object = {}): void =>
      target.fire('keydown', { code, target: null, ...more });
    key('KeyQ');
    key('KeyW', { ctrlKey: true });
    key('KeyE', { repeat: true });
    key('KeyR', { target: { tagName: 'INPUT', type: 'text', closest: () => null } });
    key('Space', { target: { tagName: 'BUTTON', closest: () => ({}) } });
    const down = Object.keys(controllers.keys).filter((code) => controllers.keys[code].down);
    expect(down).toEqual(['KeyQ']);
    target.fire('blur');
    expect(controllers.keys.KeyQ.down).toBe(false);
    stop();
    key('KeyQ');
    expect(controllers.keys.KeyQ.down).toBe(false);
  });

  test('belong to a text that is typed, not to a slider or a list', () => {
    const on = (target: object | null, key = 'a'): boolean => isTyping({ target, key } as KeyboardEvent);
    expect(on(null)).toBe(false);
    expect(on({ tagName: 'TEXTAREA' })).toBe(true);
    expect(on({ tagName: 'DIV', isContentEditable: true })).toBe(true);
    expect(on({ tagName: 'INPUT', type: 'text' })).toBe(true);
    expect(on({ tagName: 'INPUT', type: 'range' })).toBe(false);
    expect(on({ tagName: 'SELECT' })).toBe(true);
    expect(on({ tagName: 'SELECT' }, '/')).toBe(false);
    expect(on({ tagName: 'SELECT' }, '?')).toBe(false);
  });
});

describe('the pointer over a picture', () => {
  const element = Object.assign(new FakeTarget(), {
    getBoundingClientRect: () => ({ left: 100, top: 50, width: 320, height: 160 }),
    setPointerCapture: () => undefined,
  });
  let stop: () => void;
  beforeEach(() => {
    stop = listenToPointer(element as unknown as HTMLElement);
  });

  test('is in centred units: 0, 0 in the middle, height 1', () => {
    element.fire('pointermove', { pointerId: 1, clientX: 260, clientY: 130 });
    expect(controllers.pointer).toMatchObject({ x: 0, y: 0, down: false });
    element.fire('pointermove', { pointerId: 1, clientX: 420, clientY: 50 });
    expect(controllers.pointer).toMatchObject({ x: 1, y: 0.5 });
    stop();
  });

  test('has each finger by itself', () => {
    const presses = controllers.pointer.presses;
    element.fire('pointerdown', { pointerId: 1, clientX: 260, clientY: 130 });
    element.fire('pointerdown', { pointerId: 2, clientX: 420, clientY: 130 });
    expect(controllers.pointers.map(({ x }) => x)).toEqual([0, 1]);
    element.fire('pointerup', { pointerId: 1 });
    expect(controllers.pointers).toHaveLength(1);
    element.fire('pointercancel', { pointerId: 2 });
    expect(controllers.pointers).toEqual([]);
    expect(controllers.pointer.presses).toBe(presses + 2);
    stop();
  });

  test('sums the wheel, knows whether it is inside, and stops when it is told', () => {
    const { wheel } = controllers.pointer;
    element.fire('wheel', { deltaY: -120 });
    element.fire('wheel', { deltaY: -1 });
    element.fire('wheel', { deltaY: 30 });
    expect(controllers.pointer.wheel).toBe(wheel + 1);
    element.fire('pointerenter');
    expect(controllers.pointer.inside).toBe(true);
    stop();
    element.fire('pointerleave');
    expect(controllers.pointer.inside).toBe(true);
  });
});

describe('learning', () => {
  let scene: Scene;
  let noise: string;
  const now = (): Scene => showStore.getState().show.scenes[0];
  const dial: InputEvent = {
    type: 'midi',
    event: { type: 'control', channel: 1, control: 21, value: 0.5 } as never,
  };

  beforeEach(() => {
    const show = makeShow(catalogue, 'Night');
    scene = show.scenes[0];
    noise = addNode(scene, catalogue, 'noise', [0, 0]);
    openShow('id', show);
  });

  test('takes the first thing that moves, once', () => {
    const taken: string[] = [];
    waitToLearn(({ kind }) => taken.push(kind));
    heard(dial);
    heard(dial);
    expect(taken).toEqual(['midi']);
  });

  test('passes over keys that leave or confirm, and ends when it is told', () => {
    const taken: string[] = [];
    const stop = waitToLearn(({ kind }) => taken.push(kind));
    for (const code of ['Escape', 'Enter', 'Tab']) heard({ type: 'key', code, down: true });
    expect(taken).toEqual([]);
    stop();
    heard({ type: 'key', code: 'KeyK', down: true });
    expect(taken).toEqual([]);
  });

  test('for a node takes only what its kind listens to', () => {
    const taken: string[] = [];
    waitToLearn(({ kind }) => taken.push(kind), 'keys');
    heard(dial);
    heard({ type: 'key', code: 'KeyK', down: true });
    expect(taken).toEqual(['keys']);
    expect(canLearn('keys')).toBe(true);
    expect(canLearn('noise')).toBe(false);
    expect(canLearn('nothing')).toBe(false);
  });

  test('wires a new node into the control, and the same one into the next', () => {
    const learn = (part: string): void => {
      waitToLearn((learned) => driveBy(now(), noise, part, learned));
      heard({ type: 'key', code: 'KeyK', down: true });
    };
    learn('period');
    const keys = Object.values(now().nodes).filter(({ kind }) => kind === 'keys');
    expect(keys).toHaveLength(1);
    learn('amplitude');
    expect(Object.values(now().nodes).filter(({ kind }) => kind === 'keys')).toHaveLength(1);
    const ports = Object.values(now().wires)
      .filter(({ from }) => from.node === keys[0].id)
      .map(({ to }) => to.port);
    expect(ports).toEqual(['period', 'amplitude']);
  });

  test('takes the place of what drove the control before', () => {
    const draft = structuredClone(scene);
    setFormula(draft, noise, 'period', 'time');
    openShow('id', { ...showStore.getState().show, scenes: [draft] });
    waitToLearn((learned) => driveBy(now(), noise, 'period', learned));
    heard({ type: 'key', code: 'KeyK', down: true });
    expect(now().nodes[noise].formulas.period).toBeUndefined();
    waitToLearn((learned) => driveBy(now(), noise, 'period', learned));
    heard({ type: 'key', code: 'KeyJ', down: true });
    expect(Object.values(now().wires).filter(({ to }) => to.port === 'period')).toHaveLength(1);
  });

  test('has listeners that come and go', () => {
    const events: string[] = [];
    const off = onHeard(({ type }) => events.push(type));
    heard({ type: 'pointer' });
    off();
    heard({ type: 'pointer' });
    expect(events).toEqual(['pointer']);
  });
});

describe('controllers that are kept', () => {
  test('stand where they stood, whatever else is in the storage', () => {
    localStorage.setItem(
      'pyrvel.controllers',
      JSON.stringify({
        controls: { '1 21': 0.75, '1 22': 'loud', '1 23': null },
        bends: 7,
        osc: { '/swarm/size': [0.5, 2], '/broken': ['x'], '/worse': 3 },
      }),
    );
    keepHand();
    expect(controllers.midi.controls).toEqual({ '1 21': 0.75 });
    expect(controllers.osc).toEqual({ '/swarm/size': { args: [0.5, 2], count: 0 } });
    settle();
    expect(sent().at(-1)?.midi.controls).toEqual({ '1 21': 0.75 });
  });

  test('are written a moment after they move, and at once when the page goes', () => {
    const kept = (): { controls: Record<string, number> } =>
      JSON.parse(localStorage.getItem('pyrvel.controllers')!) as never;
    const move = (value: number): void => {
      controllers.midi = { ...controllers.midi, controls: { '1 21': value } };
      moveKey('KeyZ', !(controllers.keys.KeyZ?.down ?? false));
      settle();
    };
    move(0.25);
    expect(kept().controls['1 21']).toBe(0.75);
    jest.advanceTimersByTime(300);
    expect(kept().controls['1 21']).toBe(0.25);
    move(0.5);
    fakeWindow.fire('pagehide');
    expect(kept().controls['1 21']).toBe(0.5);
  });

  test('watchers are told after each change, until they leave', () => {
    let told = 0;
    const off = onHand(() => told++);
    moveKey('KeyM', true);
    settle();
    off();
    moveKey('KeyM', false);
    settle();
    expect(told).toBe(1);
  });
});
