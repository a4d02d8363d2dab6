import { beforeEach, describe, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import type { Show } from '../document/types';
import { checkPlay } from './check-play';
import { makeShow } from './create';
import { addNode } from './edit';
import { addCue, bind, cueOf, putOnDesk, storeSnapshot } from './edit-desk';

describe('what is played of a show', () => {
  let show: Show;
  let fader: string;
  const found = (): string[] => checkPlay(show, catalogue).map(({ level, where }) => `${level} ${where}`);

  beforeEach(() => {
    show = makeShow(catalogue, 'Night');
    const node = addNode(show.scenes[0], catalogue, 'flat-shape', [0, 0]);
    fader = putOnDesk(show, catalogue, { scene: 's1', node, part: 'turn' });
    const snapshot = storeSnapshot(show, { [fader]: [3] }, 's1');
    Object.assign(cueOf(show, addCue(show, null, 's1')), {
      snapshot,
      moves: [{ control: fader, value: [1], seconds: 0 }],
    });
    bind(show, { type: 'key', code: 'KeyA' }, { type: 'scene', scene: 's1' });
  });

  test('is fine as it is made by hand', () => {
    expect(found()).toEqual([]);
  });

  test('that names what is not there is said with its place', () => {
    show.desk[0].controls[0].targets[0].node = 'n99';
    show.desk[0].corners[1] = 'k9';
    Object.assign(show.cues[0], { scene: 's9', back: { cue: 'q9', times: 1 } });
    show.cues[0].moves[0].control = 'c9';
    show.bindings[0].target = { type: 'desk', control: 'c9', from: 0 };
    show.home = { scene: 's9', snapshot: null };
    expect(found().sort()).toEqual([
      'warning bindings[0]',
      'warning cues[0].back',
      'warning cues[0].moves[0]',
      'warning cues[0].scene',
      'warning desk[0].controls[0].targets[0]',
      'warning desk[0].corners[1]',
      'warning home.scene',
    ]);
  });

  test('with an id that stands twice is refused', () => {
    show.desk[0].controls.push({ ...show.desk[0].controls[0] });
    show.cues.push({ ...show.cues[0] });
    expect(found()).toEqual(['error desk', 'error cues']);
  });
});
