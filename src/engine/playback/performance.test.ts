import { beforeEach, describe, expect, test } from '@jest/globals';
import { makeScene, makeShow } from '../../core/show/create';
import type { Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { Performance } from './performance';

const showOf = (...scenes: string[]): Show => ({
  ...makeShow(catalogue, 'Night'),
  scenes: scenes.map((id) => makeScene(catalogue, id, id.toUpperCase())),
});

describe('a performance', () => {
  let played: Performance;
  const show = showOf('a', 'b', 'c');

  beforeEach(() => {
    played = new Performance();
    played.open(show, 'b', null);
  });

  test('begins at the scene that was asked for, playing, with nothing next and nothing hidden', () => {
    expect(played.report(show)).toMatchObject({
      transport: { playing: true, time: 0, range: null, done: 1 },
      program: { program: 'b', incoming: null, next: null },
      blackout: false,
      freeze: false,
    });
  });

  test('numbers its reports', () => {
    const first = played.report(show).number;
    expect(played.report(show).number).toBe(first + 1);
  });

  test('switches blackout and freeze by a word, or the other way round without one', () => {
    played.apply({ type: 'blackout' }, show);
    expect(played.blackout).toBe(true);
    played.apply({ type: 'blackout', on: true }, show);
    expect(played.blackout).toBe(true);
    played.apply({ type: 'blackout' }, show);
    expect(played.blackout).toBe(false);
    played.apply({ type: 'freeze', on: true }, show);
    expect(played.report(show)).toMatchObject({ freeze: true, blackout: false });
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
    expect(played.report(show).transport.time).toBeLessThan(1.1);
    played.apply({ type: 'range', range: null }, show);
    expect(played.report(show).transport.range).toBeNull();
  });

  test('reports how far the preroll of an exact jump is; a drag has none', () => {
    played.apply({ type: 'seek', time: 2, exactly: false }, show);
    expect(played.report(show).transport.done).toBe(1);
    played.apply({ type: 'seek', time: 2, exactly: true }, show);
    expect(played.report(show).transport.done).toBe(0);
    played.transport.preroll!.next += 60;
    expect(played.report(show).transport.done).toBeCloseTo(0.5, 1);
  });

  test('of another show begins afresh: nothing of the last one stays', () => {
    played.apply({ type: 'blackout', on: true }, show);
    played.apply({ type: 'freeze', on: true }, show);
    played.apply({ type: 'range', range: [1, 2] }, show);
    played.apply({ type: 'next', scene: 'a' }, show);
    played.apply({ type: 'play', playing: false }, show);
    const other = showOf('x', 'y');
    played.open(other, 'y', null);
    expect(played.report(other)).toMatchObject({
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
    const report = played.report(show);
    const heir = new Performance();
    heir.open(show, 'b', report);
    expect(heir.report(show)).toMatchObject({
      transport: { playing: false, time: 12.5, range: [10, 14] },
      // A transition that was on its way goes on.
      program: { program: 'b', incoming: 'a', fade: 0, seconds: 4, next: 'c' },
      blackout: true,
      freeze: false,
    });
  });

  test('goes on in a show that lost scenes with those that are left', () => {
    played.apply({ type: 'next', scene: 'c' }, show);
    const heir = new Performance();
    const less = showOf('a');
    heir.open(less, 'a', played.report(show));
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
    const { beat } = played.report(show).transport;
    const faster = { ...show, tempo: { ...show.tempo, bpm: show.tempo.bpm * 2 } };
    played.changeShow(show, faster);
    expect(played.report(faster).transport.beat).toBeCloseTo(beat, 6);
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
