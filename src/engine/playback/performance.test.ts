import { beforeEach, describe, expect, test } from '@jest/globals';
import { makeScene, makeShow, nothingPlayed } from '../../core/show/create';
import { addNode } from '../../core/show/edit';
import { addCue, controlOf, cueOf, putOnDesk, storeSnapshot } from '../../core/show/edit-desk';
import { idleControllers } from '../../core/inputs/inputs';
import type { Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { Hits } from './hits';
import { Performance, type Heard } from './performance';

const showOf = (...scenes: string[]): Show => ({
  ...makeShow(catalogue, 'Night'),
  scenes: scenes.map((id) => makeScene(catalogue, id, id.toUpperCase())),
});

describe('a performance', () => {
  let played: Performance;
  const show = showOf('a', 'b', 'c');

  beforeEach(() => {
    played = new Performance(catalogue);
    played.open(show, 'b', null);
  });

  test('begins at the scene that was asked for, playing, with nothing next and nothing hidden', () => {
    expect(played.report()).toMatchObject({
      transport: { playing: true, time: 0, range: null, done: 1 },
      program: { program: 'b', incoming: null, next: null },
      blackout: false,
      freeze: false,
    });
  });

  test('numbers its reports', () => {
    const first = played.report().number;
    expect(played.report().number).toBe(first + 1);
  });

  test('switches blackout and freeze by a word, or the other way round without one', () => {
    played.apply({ type: 'blackout' }, show);
    expect(played.blackout).toBe(true);
    played.apply({ type: 'blackout', on: true }, show);
    expect(played.blackout).toBe(true);
    played.apply({ type: 'blackout' }, show);
    expect(played.blackout).toBe(false);
    played.apply({ type: 'freeze', on: true }, show);
    expect(played.report()).toMatchObject({ freeze: true, blackout: false });
  });

  test('takes scenes of the show only', () => {
    played.apply({ type: 'take', scene: 'nowhere', seconds: 0 }, show);
    expect(played.program.state.program).toBe('b');
    played.apply({ type: 'take', scene: 'c', seconds: 0 }, show);
    expect(played.program.state.program).toBe('c');
  });

  test('takes the next scene and leaves none as next; without one it stays', () => {
    played.apply({ type: 'take-next', seconds: 0 }, show);
    expect(played.program.state).toMatchObject({ program: 'b', next: null });
    played.apply({ type: 'next', scene: 'a' }, show);
    played.apply({ type: 'take-next', seconds: 2 }, show);
    expect(played.program.state).toMatchObject({ program: 'b', incoming: 'a', next: null });
    played.program.advance(2);
    expect(played.program.state).toMatchObject({ program: 'a', incoming: null, fade: 0 });
  });

  test('goes round in a range until it is told of none', () => {
    played.apply({ type: 'range', range: [1, 2] }, show);
    played.apply({ type: 'seek', time: 1.95, exactly: false }, show);
    for (let k = 0; k < 6; k++) played.transport.advance(1 / 60, 60);
    expect(played.report().transport.time).toBeLessThan(1.1);
    played.apply({ type: 'range', range: null }, show);
    expect(played.report().transport.range).toBeNull();
  });

  test('reports how far the preroll of an exact jump is; a drag has none', () => {
    played.apply({ type: 'seek', time: 2, exactly: false }, show);
    expect(played.report().transport.done).toBe(1);
    played.apply({ type: 'seek', time: 2, exactly: true }, show);
    expect(played.report().transport.done).toBe(0);
    played.transport.preroll!.next += 60;
    expect(played.report().transport.done).toBeCloseTo(0.5, 1);
  });

  test('of another show begins afresh: nothing of the last one stays', () => {
    played.apply({ type: 'blackout', on: true }, show);
    played.apply({ type: 'freeze', on: true }, show);
    played.apply({ type: 'range', range: [1, 2] }, show);
    played.apply({ type: 'next', scene: 'a' }, show);
    played.apply({ type: 'play', playing: false }, show);
    const other = showOf('x', 'y');
    played.open(other, 'y', null);
    expect(played.report()).toMatchObject({
      transport: { playing: true, time: 0, range: null },
      program: { program: 'y', incoming: null, next: null },
      blackout: false,
      freeze: false,
    });
  });

  test('goes on in another engine from the last report', () => {
    played.apply({ type: 'seek', time: 12.5, exactly: false }, show);
    played.apply({ type: 'range', range: [10, 14] }, show);
    played.apply({ type: 'next', scene: 'c' }, show);
    played.apply({ type: 'blackout', on: true }, show);
    played.apply({ type: 'take', scene: 'a', seconds: 4 }, show);
    played.apply({ type: 'play', playing: false }, show);
    const report = played.report();
    const heir = new Performance(catalogue);
    heir.open(show, 'b', report);
    expect(heir.report()).toMatchObject({
      transport: { playing: false, time: 12.5, range: [10, 14] },
      // A transition that was on its way goes on.
      program: { program: 'b', incoming: 'a', fade: 0, seconds: 4, next: 'c' },
      blackout: true,
      freeze: false,
    });
  });

  test('goes on in a show that lost scenes with those that are left', () => {
    played.apply({ type: 'next', scene: 'c' }, show);
    const heir = new Performance(catalogue);
    const less = showOf('a');
    heir.open(less, 'a', played.report());
    expect(heir.program.state).toMatchObject({ program: 'a', next: null });
  });

  test('loses a scene that is deleted while it is on air, coming or next', () => {
    played.apply({ type: 'next', scene: 'c' }, show);
    played.apply({ type: 'take', scene: 'a', seconds: 4 }, show);
    played.changeShow(show, showOf('a'));
    expect(played.program.state).toMatchObject({ program: 'a', incoming: null, fade: 0, next: null });
  });

  test('keeps its beat when the tempo changes', () => {
    played.apply({ type: 'seek', time: 3, exactly: false }, show);
    const { beat } = played.report().transport;
    const faster = { ...show, tempo: { ...show.tempo, bpm: show.tempo.bpm * 2 } };
    played.changeShow(show, faster);
    expect(played.report().transport.beat).toBeCloseTo(beat, 6);
  });

  test('begins a take on the next bar where the show says so, and at once where it stands', () => {
    const onBars = { ...show, transition: { ...show.transition, start: 'bar' as const } };
    played.apply({ type: 'take', scene: 'a', seconds: 0 }, onBars);
    expect(played.program.state).toMatchObject({ program: 'b', waiting: { scene: 'a', beat: 4 } });
    played.program.advance(0.1, 3.9);
    expect(played.program.state.program).toBe('b');
    played.program.advance(0.1, 4);
    expect(played.program.state).toMatchObject({ program: 'a', waiting: null });
    played.apply({ type: 'play', playing: false }, onBars);
    played.apply({ type: 'take', scene: 'c', seconds: 0 }, onBars);
    expect(played.program.state.program).toBe('c');
  });

  test('moves the crossfader to a place, and on from where it is', () => {
    played.apply({ type: 'next', scene: 'a' }, show);
    played.apply({ type: 'crossfade', to: 0.25 }, show);
    played.apply({ type: 'crossfade-by', by: 0.25 }, show);
    expect(played.program.state).toMatchObject({ program: 'b', incoming: 'a', fade: 0.5, byHand: true });
    played.apply({ type: 'take-next', seconds: 2 }, show);
    expect(played.program.state).toMatchObject({ incoming: 'a', fade: 0.5, byHand: false, next: null });
  });
});

describe('what is played by hand', () => {
  const show = showOf('a', 'b', 'c');
  let fader = '';
  let played: Performance;
  const heard: Heard = { controllers: idleControllers(), sound: null, code: null };
  /** Lets seconds pass in frames of 1/60 s. */
  const pass = (seconds: number): void => {
    for (let k = 0; k < Math.round(seconds * 60); k++) {
      played.transport.advance(1 / 60, 60);
      played.advance(1 / 60, heard);
    }
  };
  const value = (): unknown => played.desk.valueOf(fader);

  beforeEach(() => {
    Object.assign(show, nothingPlayed());
    const node = addNode(show.scenes[0], catalogue, 'flat-shape', [0, 0]);
    fader = putOnDesk(show, catalogue, { scene: 'a', node, part: 'turn' });
    Object.assign(controlOf(show, fader), { range: [0, 100], home: [10] });
    played = new Performance(catalogue);
    played.open(show, 'a', null);
  });

  test('a bound fader takes over softly, an endless dial turns from where the control stands', () => {
    played.apply({ type: 'desk', control: fader, value: [50] }, show);
    const turn = (share: number): void =>
      played.apply({ type: 'turn', control: fader, from: 0, share, source: 'x', pickup: true }, show);
    turn(0.1);
    expect(value()).toEqual([50]);
    turn(0.6);
    expect(value()).toEqual([60]);
    played.apply({ type: 'turn-by', control: fader, from: 0, by: -0.2 }, show);
    expect((value() as number[])[0]).toBeCloseTo(40, 6);
  });

  test('a cue brings its scene, its snapshot, its moves and its tempo, and makes the next one ready', () => {
    const snapshot = storeSnapshot(show, { [fader]: [80] }, null);
    const [first, second] = [addCue(show, null, 'b'), addCue(show, null, 'c')];
    Object.assign(cueOf(show, first), { snapshot, seconds: 2, bpm: 90 });
    Object.assign(cueOf(show, second), {
      go: { type: 'after', length: 6, unit: 'beats' },
      moves: [{ control: fader, value: [20], seconds: 0 }],
    });
    played.open(show, 'a', null);
    played.apply({ type: 'cue', do: 'go' }, show);
    expect(played.program.state).toMatchObject({ incoming: 'b', next: 'c' });
    expect(played.report().transport.bpm).toBe(90);
    pass(1);
    expect((value() as number[])[0]).toBeCloseTo(40, 0);
    pass(2.9);
    expect(value()).toEqual([80]);
    expect(played.cues.state.at).toBe(first);
    pass(0.2);
    expect(played.cues.state.at).toBe(second);
    pass(0.1);
    expect(value()).toEqual([20]);
  });

  test('a hand interrupts a cue under way, which can be picked up again', () => {
    const cue = addCue(show, null, 'b');
    Object.assign(cueOf(show, cue), { moves: [{ control: fader, value: [90], seconds: 4 }] });
    played.open(show, 'a', null);
    played.apply({ type: 'cue', do: 'go' }, show);
    pass(2);
    played.apply({ type: 'take', scene: 'c', seconds: 0 }, show);
    const there = (value() as number[])[0];
    pass(3);
    expect((value() as number[])[0]).toBe(there);
    expect(played.cues.state.held).not.toBeNull();
    played.apply({ type: 'cue', do: 'resume' }, show);
    pass(2.1);
    expect(value()).toEqual([90]);
    expect(played.program.state.incoming ?? played.program.state.program).toBe('b');
  });

  test('panic is home in the same frame, whatever was under way', () => {
    show.home.scene = 'b';
    played.open(show, 'a', null);
    played.apply({ type: 'desk', control: fader, value: [70] }, show);
    played.apply({ type: 'layer', layer: { scene: 'c', blend: 'add', opacity: 1 } }, show);
    played.apply({ type: 'hit', hit: 'invert', on: true }, show);
    played.apply({ type: 'blackout', on: true }, show);
    played.apply({ type: 'take', scene: 'c', seconds: 9 }, show);
    played.program.isReady = () => false;
    played.apply({ type: 'panic' }, show);
    expect(played.report()).toMatchObject({
      program: { program: 'b', incoming: null },
      blackout: false,
      layer: null,
      desk: { values: { [fader]: [10] } },
    });
    expect(played.hits.active).toEqual([]);
  });

  test('moves are recorded, handed over once and played again frame for frame', () => {
    played.apply({ type: 'record', on: true }, show);
    const before: unknown[] = [];
    for (let k = 0; k < 60; k++) {
      pass(1 / 60);
      if (k % 3 === 0) played.apply({ type: 'desk', control: fader, value: [k] }, show);
      if (k === 30) played.apply({ type: 'take', scene: 'b', seconds: 0.2 }, show);
      pass(1 / 60);
      before.push([value(), played.program.state.program]);
    }
    expect(played.takeRecorded()).toBeNull();
    played.apply({ type: 'record', on: false }, show);
    const { moves, end } = played.takeRecorded()!;
    expect(moves).toHaveLength(21);
    expect(end).toBeCloseTo(2, 3);
    expect(played.takeRecorded()).toBeNull();
    show.moves = moves;
    played.open(show, 'a', null);
    played.apply({ type: 'replay', on: true }, show);
    const after: unknown[] = [];
    for (let k = 0; k < 60; k++) {
      pass(2 / 60);
      after.push([value(), played.program.state.program]);
    }
    expect(after).toEqual(before);
  });

  test('a morph goes between the snapshots of a page, and corners without one count for nothing', () => {
    const page = show.desk[0];
    page.corners = [
      storeSnapshot(show, { [fader]: [0] }, 'a'),
      storeSnapshot(show, { [fader]: [80] }, 'a'),
      null,
      null,
    ];
    played.apply({ type: 'morph', page: page.id, at: [0.25, 0.9] }, show);
    expect((value() as number[])[0]).toBeCloseTo(20, 6);
  });

  test('speed slows the picture down and leaves the beat with the music', () => {
    played.apply({ type: 'master', master: 'speed', value: 0.5 }, show);
    pass(2);
    const moment = played.moment(1 / 60);
    expect(moment.time).toBeCloseTo(1, 2);
    expect(moment.beat).toBeCloseTo(4, 2);
    expect(moment.dt).toBeCloseTo(1 / 120, 6);
    played.apply({ type: 'master', master: 'speed', value: 0 }, show);
    pass(1);
    expect(played.moment(0).time).toBeCloseTo(1, 2);
    expect(played.transport.time).toBeCloseTo(3, 2);
  });

  test('a transition waits until its scene can be seen whole', () => {
    let isReady = false;
    played.program.isReady = () => isReady;
    played.apply({ type: 'take', scene: 'b', seconds: 1 }, show);
    pass(1);
    expect(played.program.state).toMatchObject({ program: 'a', incoming: 'b', fade: 0 });
    isReady = true;
    pass(0.5);
    expect(played.program.state.fade).toBeCloseTo(0.5, 1);
    isReady = false;
    played.apply({ type: 'take', scene: 'c', seconds: 0 }, show);
    expect(played.program.state.incoming).toBe('c');
    isReady = true;
    pass(1 / 60);
    expect(played.program.state).toMatchObject({ program: 'c', incoming: null });
  });

  test('another engine goes on with the desk, the cue and the layer as they were', () => {
    const cue = addCue(show, null, 'b');
    played.open(show, 'a', null);
    played.apply({ type: 'cue', do: 'go' }, show);
    played.apply({ type: 'desk', control: fader, value: [33] }, show);
    played.apply({ type: 'layer', layer: { scene: 'c', blend: 'over', opacity: 0.5 } }, show);
    pass(0.5);
    const state = played.report();
    const next = new Performance(catalogue);
    next.open(show, 'a', state);
    expect(next.report()).toMatchObject({
      desk: { values: { [fader]: [33] } },
      cues: { at: cue },
      layer: { scene: 'c' },
      program: { incoming: 'b', fade: state.program.fade },
    });
  });
});

describe('hits on the picture', () => {
  /** Rises of a level from dark to bright and back, in any second at most. */
  const worst = (hits: Hits, press: (now: number) => void, seconds = 6): number => {
    const changes: number[] = [];
    let before = hits.at(0).level;
    for (let frame = 0; frame < seconds * 60; frame++) {
      const now = frame / 60;
      press(now);
      const { level, invert, flash } = hits.at(now);
      const state = level + (invert ? 2 : 0) + (flash > 0 ? 4 : 0);
      if (state !== before) changes.push(now);
      before = state;
    }
    return (
      Math.max(...changes.map((from) => changes.filter((at) => at >= from && at < from + 1 - 1e-6).length)) /
      2
    );
  };

  test('never flash more than three times a second, however a hand drums', () => {
    const hits = new Hits();
    hits.press('strobe', true, 0);
    expect(worst(hits, () => undefined)).toBeLessThanOrEqual(3);
    for (const hit of ['invert', 'flash', 'strobe'] as const) {
      const drummed = new Hits();
      const most = worst(drummed, (now) => drummed.press(hit, Math.floor(now * 20) % 2 === 0, now));
      expect(most).toBeGreaterThan(1);
      expect(most).toBeLessThanOrEqual(3);
    }
  });

  test('are seen at once', () => {
    const hits = new Hits();
    hits.at(0);
    hits.press('strobe', true, 1);
    expect(hits.at(1).level).toBe(0);
    hits.press('strobe', false, 1.5);
    expect(hits.at(1.7).level).toBe(1);
  });
});
