import { beforeEach, describe, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import type { Show } from '../document/types';
import { addNode, connect } from '../show/edit';
import { makeShow, structuredCloneOf } from '../show/create';
import {
  addTarget,
  bind,
  canLieOnDesk,
  controlOf,
  forgetScene,
  putOnDesk,
  removeDeskControl,
  removeSnapshot,
  storeSnapshot,
  writeDesk,
} from '../show/edit-desk';
import { momentAt } from '../time/clock';
import { DeskRun, givenTo } from './desk-run';
import { mostFree, overlap } from './grid';
import { cornerShares, mixValues } from './mix';
import { heldNumber, heldValue, storedValue } from './value';

const at = (time: number) => momentAt(time, 1 / 60, 60, { bpm: 120, beatsPerBar: 4 });

let show: Show;
let shape: string;

beforeEach(() => {
  show = makeShow(catalogue, 'Night');
  shape = addNode(show.scenes[0], catalogue, 'flat-shape', [0, 0]);
});

const on = (part: string, node = shape): string => putOnDesk(show, catalogue, { scene: 's1', node, part });
const control = (id: string) => controlOf(show, id);

describe('a control of a node on the desk', () => {
  test('becomes what suits its type, stands where the patch has it, and has its useful range', () => {
    const { controls } = show.scenes[0].nodes[shape];
    controls.size = [0.25, 0.25];
    const kind = catalogue.get('flat-shape')!;
    const wanted: Record<string, string> = {
      number: 'fader',
      whole: 'fader',
      angle: 'dial',
      toggle: 'switch',
      choice: 'choice',
      colour: 'chip',
      point: 'xy',
    };
    for (const [name, spec] of Object.entries(kind.controls)) {
      if (!wanted[spec.type]) continue;
      const made = control(on(name));
      expect([name, made.type]).toEqual([name, wanted[spec.type]]);
      expect(made.home).toEqual(storedValue(show, made, catalogue));
      if ('range' in spec) {
        expect(made.range[0]).toBeLessThanOrEqual(spec.range[0]);
        expect(made.range[1]).toBeGreaterThanOrEqual(spec.range[1]);
      }
    }
    expect(show.desk).toHaveLength(1);
    const { controls: all } = show.desk[0];
    for (const a of all) for (const b of all) expect(a === b || !overlap(a, b)).toBe(true);
  });

  test('that a wire drives is refused, with what to do', () => {
    const drift = addNode(show.scenes[0], catalogue, 'drift', [0, 200]);
    connect(show.scenes[0], catalogue, drift, shape, 'turn');
    expect(() => on('turn')).toThrow(/driven there by a wire from Drift/);
  });

  test('that no hand can move is refused', () => {
    const gradient = addNode(show.scenes[0], catalogue, 'gradient', [0, 0]);
    expect(() => on('colours', gradient)).toThrow(/nothing that a hand can move/);
    expect(canLieOnDesk(catalogue.get('gradient')!.controls.colours)).toBe(false);
    expect(() => on('nonsense')).toThrow(/has no control/);
  });

  test('leaves nothing behind when it is taken off', () => {
    const id = on('turn');
    storeSnapshot(show, { [id]: [20] }, 's1');
    bind(show, { type: 'key', code: 'KeyA' }, { type: 'desk', control: id, from: 0 });
    show.moves = [{ type: 'desk', at: 1, control: id, value: [3] }];
    removeDeskControl(show, id);
    expect(show.desk[0].controls).toEqual([]);
    expect(show.snapshots[0].values).toEqual({});
    expect(show.bindings).toEqual([]);
    expect(show.moves).toEqual([]);
  });

  test('goes with its scene', () => {
    const id = on('turn');
    show.home = { scene: 's1', snapshot: storeSnapshot(show, { [id]: [20] }, 's1') };
    forgetScene(show, 's1');
    expect([show.desk, show.snapshots, show.home]).toEqual([[], [], { scene: null, snapshot: null }]);
  });
});

describe('the desk while it is played', () => {
  let desk: DeskRun;
  let fader: string;
  let now = 0;
  const given = (): Record<string, unknown> =>
    Object.fromEntries([...desk.given('s1').values].map(({ part, value }) => [part, value]));
  const go = (time: number): void => desk.advance(at((now = time)), time);

  beforeEach(() => {
    show.scenes[0].nodes[shape].controls.turn = 30;
    fader = on('turn');
    desk = new DeskRun(catalogue);
    desk.open(show);
    go(0);
  });

  test('gives nothing before a hand has moved it, so that the patch is as it was made', () => {
    expect(given()).toEqual({});
    expect(desk.valueOf(fader)).toEqual([30]);
  });

  test('gives what a hand puts it to, inside its range and on its steps', () => {
    Object.assign(control(fader), { range: [0, 90], step: 20 });
    desk.takeShow({ ...show, desk: structuredCloneOf(show.desk) });
    desk.set(fader, [71], now);
    go(1);
    expect(desk.valueOf(fader)).toEqual([80]);
    desk.set(fader, [400], now);
    go(2);
    expect(desk.valueOf(fader)).toEqual([90]);
  });

  test('moves several controls, each through its own fit', () => {
    addTarget(show, catalogue, fader, { scene: 's1', node: shape, part: 'softness' });
    const [first, second] = control(fader).targets;
    Object.assign(control(fader), { range: [0, 100] });
    first.to = [0, 360];
    Object.assign(second, { to: [1, 0], bend: 2 });
    desk.takeShow({ ...show, desk: [...show.desk] });
    desk.set(fader, [50], now);
    go(1);
    expect(given()).toEqual({ turn: 180, softness: 0.75 });
  });

  test('recalls over a time, and a hand takes what it touches out of it', () => {
    const other = on('softness');
    desk.takeShow({ ...show, desk: [...show.desk] });
    desk.moveTo({ [fader]: [130], [other]: [0.2] }, 2, 0);
    go(1);
    expect(desk.valueOf(fader)).toEqual([80]);
    desk.set(other, [0.5], 1);
    go(2);
    expect(desk.valueOf(fader)).toEqual([130]);
    expect(desk.valueOf(other)).toEqual([0.5]);
    expect(desk.isMoving).toBe(false);
  });

  test('undoes action by action: all moves of one drag are one', () => {
    for (const [k, value] of [40, 50, 60].entries()) desk.set(fader, [value], k * 0.1);
    desk.set(fader, [90], 5);
    expect(desk.undo()).toBe(true);
    expect(desk.valueOf(fader)).toEqual([60]);
    desk.undo();
    expect(desk.valueOf(fader)).toEqual([30]);
    expect(desk.undo()).toBe(false);
    go(6);
    expect(given()).toEqual({});
  });

  test('stands where an edit of the patch put the control: who moved it last, wins', () => {
    desk.set(fader, [200], now);
    const edited = structuredCloneOf(show);
    edited.desk = show.desk;
    edited.scenes[0].nodes[shape].controls.turn = 10;
    desk.takeShow(edited);
    go(1);
    expect(desk.valueOf(fader)).toEqual([10]);
    expect(given()).toEqual({});
  });

  test('keeps what it stood at through another engine, without what is gone', () => {
    desk.set(fader, [77], now);
    const next = new DeskRun(catalogue);
    next.open(show, { ...desk.values, gone: [1] });
    expect(next.values).toEqual({ [fader]: [77] });
  });

  test('can be written into the patch', () => {
    desk.set(fader, [77], now);
    writeDesk(show, catalogue, desk.values);
    expect(show.scenes[0].nodes[shape].controls.turn).toBe(77);
  });

  test('moves by itself where a motion lies on it', () => {
    control(fader).motions = [
      { type: 'swing', on: true, amount: 20, shape: 'sine', rate: 0.25, unit: 'hertz', phase: 0 },
    ];
    desk.takeShow({ ...show, desk: structuredCloneOf(show.desk) });
    go(1);
    expect(given().turn).toBeCloseTo(50, 4);
    desk.advance({ ...at(1), motion: 0.5 }, 1);
    expect(given().turn).toBeCloseTo(40, 4);
  });

  test('gives pictures of snapshots what these hold', () => {
    expect(givenTo(show, { [fader]: [90] }, 's1')).toEqual([{ node: shape, part: 'turn', value: 90 }]);
    expect(givenTo(show, { [fader]: [90] }, 's2')).toEqual([]);
  });
});

describe('a mix of values', () => {
  const fader = { type: 'fader', range: [0, 360], step: 0, home: [0] } as never;

  test('is a straight line of numbers, and the short way of angles', () => {
    expect(mixValues(fader, [[10], [30]], [0.5, 0.5])).toEqual([20]);
    expect(mixValues(fader, [[350], [20]], [0.5, 0.5], { period: 360 })).toEqual([5]);
    expect(mixValues(fader, [[20], [350]], [0.5, 0.5], { period: 360 })).toEqual([5]);
    expect(mixValues(fader, [[350], [20]], [1, 0], { period: 360 })).toEqual([350]);
  });

  test('goes through colours as eyes see them: between blue and yellow lies no black', () => {
    const chip = { type: 'chip', range: [0, 1], step: 0, home: [0, 0, 0, 1] } as never;
    const mixed = mixValues(
      chip,
      [
        [0, 0, 1, 1],
        [1, 1, 0, 0],
      ],
      [0.5, 0.5],
    ) as number[];
    expect(mixed[3]).toBe(0.5);
    // The lightness of OKLab lies in the middle: a straight mix of these numbers would be a grey of 0.5.
    expect(mixed[1]).toBeGreaterThan(0.55);
    expect(
      mixValues(
        chip,
        [
          [1, 0, 0, 1],
          [1, 0, 0, 1],
        ],
        [0.3, 0.7],
      ),
    ).toEqual([expect.closeTo(1, 5), expect.closeTo(0, 5), expect.closeTo(0, 5), 1]);
  });

  test('changes choices, words and switches at the half', () => {
    const choice = { type: 'choice', range: [0, 1], step: 0, home: 'a' } as never;
    const flip = { type: 'switch', range: [0, 1], step: 0, home: [0] } as never;
    expect(mixValues(choice, ['a', 'b'], [0.51, 0.49])).toBe('a');
    expect(mixValues(choice, ['a', 'b'], [0.49, 0.51])).toBe('b');
    expect(mixValues(flip, [[0], [1]], [0.4, 0.6])).toEqual([1]);
  });

  test('has shares of four corners that add up to 1', () => {
    expect(cornerShares([0.25, 0.5])).toEqual([0.375, 0.125, 0.375, 0.125]);
    expect(mixValues(fader, [[0], [100], [200], [300]], cornerShares([0.5, 0.5]))).toEqual([150]);
  });
});

describe('places and values', () => {
  test('a new control lies where none is', () => {
    const lying = [{ place: [0, 0], size: [9, 1] } as never];
    expect(mostFree(lying, [1, 1])).toEqual([9, 0]);
    expect(mostFree(lying, [2, 3])).toEqual([0, 1]);
  });

  test('an end can be reached where steps do not come out even', () => {
    const odd = { range: [0, 1], step: 0.3 } as never;
    expect([0.29, 0.5, 0.95, 1, 2].map((v) => Number(heldNumber(odd, v).toFixed(6)))).toEqual([
      0.3, 0.6, 0.9, 1, 1,
    ]);
  });

  test('a value of another form is home', () => {
    const pad = { type: 'xy', range: [-1, 1], step: 0, home: [0, 0] } as never;
    expect(heldValue(pad, [3, -0.5])).toEqual([1, -0.5]);
    expect(heldValue(pad, [1])).toEqual([0, 0]);
    expect(heldValue(pad, 'left')).toEqual([0, 0]);
  });

  test('a snapshot that is removed is named nowhere', () => {
    const id = on('turn');
    const snapshot = storeSnapshot(show, { [id]: [4] }, null);
    show.desk[0].corners[2] = snapshot;
    removeSnapshot(show, snapshot);
    expect(show.desk[0].corners).toEqual([null, null, null, null]);
  });
});
