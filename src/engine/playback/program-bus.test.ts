import { onlyProgram } from '../../core/desk/performance-state';
import { describe, expect, test } from '@jest/globals';
import { ProgramBus } from './program-bus';

const scenes = ['a', 'b', 'c'];
const opened = (wanted = 'a'): ProgramBus => {
  const stage = new ProgramBus();
  stage.open(wanted, scenes);
  return stage;
};

describe('what is on stage', () => {
  test('begins with the wanted scene, or the first', () => {
    expect(opened('b').state.program).toBe('b');
    expect(opened('gone').state.program).toBe('a');
    const empty = new ProgramBus();
    empty.open('a', []);
    expect(empty.state.program).toBe('');
  });
  test('fades over its seconds, however they are cut', () => {
    const stage = opened();
    stage.take('b', 2);
    stage.advance(0.5);
    expect(stage.state).toMatchObject({ program: 'a', incoming: 'b', fade: 0.25 });
    for (let k = 0; k < 15; k++) stage.advance(0.1);
    expect(stage.state).toMatchObject({ program: 'b', incoming: null, fade: 0 });
  });
  test('at once for 0 seconds, and not to where it is or goes', () => {
    const stage = opened();
    stage.take('c', 0);
    expect(stage.state).toMatchObject({ program: 'c', incoming: null });
    const before = stage.state;
    stage.take('c', 2);
    expect(stage.state).toBe(before);
  });
  test.each([
    [0.25, 'a'],
    [0.75, 'b'],
  ])('taken again at %d of a fade it starts from what is more visible: %s', (share, from) => {
    const stage = opened();
    stage.take('b', 1);
    stage.advance(share);
    stage.take('c', 1);
    expect(stage.state).toMatchObject({ program: from, incoming: 'c', fade: 0 });
  });
  test('taken back in the first half, nothing fades any more', () => {
    const stage = opened();
    stage.take('b', 1);
    stage.advance(0.25);
    stage.take('a', 1);
    expect(stage.state).toMatchObject({ program: 'a', incoming: null });
  });
  test('scenes that are gone leave it', () => {
    const stage = opened();
    stage.setNext('c');
    stage.take('b', 1);
    stage.keepTo(['a', 'c']);
    expect(stage.state).toEqual({ ...onlyProgram('a'), next: 'c', seconds: 1 });
    stage.take('c', 1);
    stage.keepTo(['b', 'c']);
    expect(stage.state.program).toBe('c');
    stage.keepTo([]);
    expect(stage.state.program).toBe('');
  });

  test('the crossfader brings the next scene as far as the hand does, and back', () => {
    const stage = opened();
    stage.crossfade(0.3);
    expect(stage.state.incoming).toBeNull();
    stage.setNext('b');
    stage.crossfade(0.3);
    expect(stage.state).toMatchObject({ program: 'a', incoming: 'b', fade: 0.3, byHand: true, next: 'b' });
    stage.advance(10);
    expect(stage.state.fade).toBe(0.3);
    stage.crossfade(0);
    expect(stage.state).toMatchObject({ program: 'a', incoming: null, byHand: false, next: 'b' });
    stage.crossfade(0.9);
    stage.crossfade(1);
    expect(stage.state).toMatchObject({ program: 'b', incoming: null, fade: 0, next: null, byHand: false });
  });

  test('a hand takes hold of a transition that runs, and lets it go again', () => {
    const stage = opened();
    stage.take('b', 2);
    stage.advance(0.5);
    stage.crossfade(0.6);
    stage.advance(5);
    expect(stage.state).toMatchObject({ incoming: 'b', fade: 0.6, byHand: true });
    stage.take('b', 2);
    stage.advance(0.4);
    expect(stage.state.fade).toBeCloseTo(0.8);
    stage.advance(0.4);
    expect(stage.state.program).toBe('b');
  });

  test('a take that waits begins with its beat, and another one takes its place', () => {
    const stage = opened();
    stage.wait('b', 1, 8);
    stage.advance(0.1, 7.9);
    expect(stage.state).toMatchObject({ incoming: null, waiting: { scene: 'b', beat: 8 } });
    stage.wait('c', 1, 8);
    stage.advance(0.1, 8.02);
    expect(stage.state).toMatchObject({ incoming: 'c', waiting: null });
    stage.wait('b', 1, 12);
    stage.keepTo(['a', 'c']);
    expect(stage.state.waiting).toBeNull();
  });

  test('goes on from the middle of a transition after another engine', () => {
    const before = opened();
    before.setNext('c');
    before.take('b', 4);
    before.advance(1);
    const after = new ProgramBus();
    after.resume(before.state, scenes);
    after.advance(1);
    expect(after.state).toMatchObject({ program: 'a', incoming: 'b', fade: 0.5, next: 'c' });
  });
});
