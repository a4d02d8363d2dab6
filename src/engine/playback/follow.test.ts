import { beforeEach, describe, expect, test } from '@jest/globals';
import { idleControllers } from '../../core/inputs/inputs';
import { makeScene, makeShow } from '../../core/show/create';
import { addNode } from '../../core/show/edit';
import { addCue, addPage, cueOf, putOnDesk } from '../../core/show/edit-desk';
import type { Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { Performance, type Heard } from './performance';

const heard: Heard = { controllers: idleControllers(), sound: null, code: null };

function nightShow(): Show {
  const show: Show = {
    ...makeShow(catalogue, 'Night'),
    scenes: ['a', 'b'].map((id) => makeScene(catalogue, id, id.toUpperCase())),
  };
  const noise = addNode(show.scenes[0], catalogue, 'noise', [0, 0]);
  putOnDesk(show, catalogue, { scene: 'a', node: noise, part: 'contrast' }, addPage(show, null, 'All'));
  const cue = cueOf(show, addCue(show, null, 'b'));
  cue.go = { type: 'after', length: 1, unit: 'seconds' };
  return show;
}

describe('a performance that follows another one', () => {
  const show = nightShow();
  const control = show.desk[0].controls[0].id;
  let main: Performance;
  let player: Performance;
  /** Milliseconds of the one clock that both go by here. */
  let now: number;

  beforeEach(() => {
    now = 5000;
    [main, player] = [new Performance(catalogue), new Performance(catalogue)];
    for (const one of [main, player]) one.open(show, 'a', null);
  });

  /** Both draw a frame; the player is told of the main one now and then, and hears it late. */
  const frame = (ms: number, isTold: boolean, lateMs = 0): void => {
    const told = main.report(now);
    now += ms;
    for (const one of [main, player]) {
      one.transport.advance(ms / 1000, 60);
      one.advance(ms / 1000, heard);
    }
    if (isTold) player.follow({ ...told, at: told.at - lateMs }, now);
  };
  const apart = (): number => Math.abs(main.transport.time - player.transport.time);

  test('comes to its time and stays there, also where it hears late', () => {
    main.apply({ type: 'seek', time: 40, exactly: false }, show);
    frame(16, true);
    expect(apart()).toBeLessThan(0.02);
    for (let k = 0; k < 60; k++) frame(k % 7 ? 16 : 41, k % 3 === 0);
    expect(apart()).toBeLessThan(1e-6);
    expect(player.moment(0).beat).toBeCloseTo(main.moment(0).beat, 6);
  });

  test('comes nearer by little steps, so that no frame jumps', () => {
    frame(16, true);
    const before = player.transport.time;
    const state = main.report(now);
    player.follow({ ...state, transport: { ...state.transport, time: state.transport.time + 0.05 } }, now);
    expect(player.transport.time - before).toBeCloseTo(0.002, 6);
  });

  test('that joins late has run what passed elsewhere while it ran its own way', () => {
    const { fps } = show.canvas;
    main.apply({ type: 'seek', time: 40, exactly: false }, show);
    frame(16, true);
    player.apply({ type: 'seek', time: main.transport.time, exactly: true }, show);
    const way = player.transport.preroll!;
    const goal = way.last;
    const run = (): void => void (way.next = way.last + 1);
    // Two seconds of the clock, in which the player only runs.
    for (let k = 0; k < 20; k++) {
      now += 100;
      main.transport.advance(0.1, fps);
      player.follow(main.report(now), now);
    }
    run();
    player.endPreroll(now);
    expect(player.transport.preroll).toBe(way);
    expect([way.isLate, way.next, way.last]).toEqual([true, goal + 1, goal + 2 * fps]);
    run();
    now += 16;
    main.transport.advance(0.016, fps);
    player.endPreroll(now);
    expect(player.transport.preroll).toBeNull();
    expect(player.transport.time).toBeCloseTo(main.transport.time, 6);
    expect(player.moment(0).beat).toBeCloseTo(main.moment(0).beat, 6);
    // Where the main machine was put elsewhere meanwhile, nothing leads there.
    player.apply({ type: 'seek', time: 40, exactly: true }, show);
    main.apply({ type: 'seek', time: 400, exactly: false }, show);
    player.follow(main.report(now), now);
    player.endPreroll(now);
    expect(player.transport.preroll).toBeNull();
    expect(player.transport.time).toBeCloseTo(400, 6);
  });

  test('has its desk, stage, masters, layer and hits, and lets go what it lets go', () => {
    main.apply({ type: 'desk', control, value: [0.25] }, show);
    main.apply({ type: 'blackout', on: true }, show);
    main.apply({ type: 'master', master: 'speed', value: 2 }, show);
    main.apply({ type: 'layer', layer: { scene: 'b', blend: 'add', opacity: 0.5 } }, show);
    main.apply({ type: 'hit', hit: 'invert', on: true }, show);
    main.apply({ type: 'take', scene: 'b', seconds: 2 }, show);
    frame(500, true);
    const wanted = main.report();
    expect(player.report()).toMatchObject({
      transport: { playing: true, bpm: wanted.transport.bpm },
      program: { program: 'a', incoming: 'b', fade: wanted.program.fade },
      desk: { values: wanted.desk.values },
      blackout: true,
      masters: { speed: 2, motion: 1 },
      layer: wanted.layer,
      hits: ['invert'],
    });
    expect(player.moment(0).time).toBeCloseTo(main.moment(0).time, 2);
    main.apply({ type: 'hit', hit: 'invert', on: false }, show);
    main.apply({ type: 'desk-undo' }, show);
    frame(16, true);
    expect(player.hits.active).toEqual([]);
    expect(player.desk.values).toEqual(main.desk.values);
  });

  test('takes no cue by itself, and goes on alone with what it has', () => {
    main.apply({ type: 'cue', do: 'go' }, show);
    frame(16, true);
    const was = player.program.state.program;
    const time = player.transport.time;
    for (let k = 0; k < 100; k++) {
      now += 50;
      player.transport.advance(0.05, 60);
      player.advance(0.05, heard);
    }
    expect(player.transport.time).toBeCloseTo(time + 5, 6);
    expect(player.program.state.incoming ?? player.program.state.program).toBe(
      main.program.state.incoming ?? was,
    );
    // Opened again, it is its own.
    player.open(show, 'a', null);
    player.apply({ type: 'cue', do: 'go' }, show);
    expect(player.report().cues.at).not.toBeNull();
  });
});
