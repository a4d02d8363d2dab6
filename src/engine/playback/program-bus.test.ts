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
    expect(stage.state).toEqual({ program: 'a', incoming: null, fade: 0, next: 'c' });
    stage.take('c', 1);
    stage.keepTo(['b', 'c']);
    expect(stage.state.program).toBe('c');
    stage.keepTo([]);
    expect(stage.state.program).toBe('');
  });
});
