import { onlyProgram } from '../../core/desk/performance-state';
import { describe, expect, test } from '@jest/globals';
import type { Texture } from 'three';
import { plainLook, type Look } from '../image/look';
import { presented, type Looks } from './presented';

const look = (name: string): Look => plainLook({ name } as Texture);
const [a, b, alone, nothing] = ['a', 'b', 'alone', 'nothing'].map(look);
const looks: Looks = {
  ofScene: (id) => ({ a, b })[id],
  of: (source) => (source.type === 'scene' && source.scene === 'gone' ? undefined : alone),
  nothing,
};
const onAir = onlyProgram('a');

describe('what an output shows', () => {
  test('of the program is the scene on air', () => {
    expect(presented({ type: 'program' }, onAir, looks)).toEqual({ first: a, second: nothing, fade: 0 });
  });

  test('of the program during a transition is both scenes, eased at either end', () => {
    const fading = { ...onAir, incoming: 'b', fade: 0.25 };
    const { first, second, fade } = presented({ type: 'program' }, fading, looks);
    expect([first, second]).toEqual([a, b]);
    expect(fade).toBeCloseTo(0.15625);
    expect(presented({ type: 'program' }, { ...fading, fade: 0.5 }, looks).fade).toBe(0.5);
    // A hand that holds the crossfader eases by itself.
    expect(presented({ type: 'program' }, { ...fading, byHand: true }, looks).fade).toBe(0.25);
  });

  test('of next is the next scene, or nothing', () => {
    expect(presented({ type: 'next' }, { ...onAir, next: 'b' }, looks).first).toBe(b);
    expect(presented({ type: 'next' }, onAir, looks).first).toBe(nothing);
  });

  test('of a scene, a node or an example is just that, whatever is on air', () => {
    const scene = { type: 'scene', scene: 'b', without: null } as const;
    expect(presented(scene, { ...onAir, incoming: 'b', fade: 0.5 }, looks)).toEqual({
      first: alone,
      second: nothing,
      fade: 0,
    });
    expect(presented({ type: 'node', scene: 'b', node: 'n' }, onAir, looks).first).toBe(alone);
  });

  test('of what is not playing is nothing', () => {
    expect(presented({ type: 'scene', scene: 'gone', without: null }, onAir, looks).first).toBe(nothing);
    expect(presented({ type: 'program' }, { ...onAir, program: 'gone' }, looks).first).toBe(nothing);
  });
});
