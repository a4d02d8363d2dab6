import { expect, test } from '@jest/globals';
import type { PixelString, Show } from '../../core/document/types';
import { makeShow } from '../../core/show/create';
import { addPixelString } from '../../core/show/edit-wall';
import { catalogue } from '../../nodes/catalogue';
import type { Gpu } from '../gpu/gpu';
import { Strings } from './strings';

/** A show with a string that is sent so. */
function showOf(send: Partial<PixelString['send']>): Show {
  const show = makeShow(catalogue, 'Strings');
  addPixelString(show);
  Object.assign((show.wall.outputs[0] as PixelString).send, send);
  return show;
}

test('strings that are sent nowhere are not fed, and simulated ones only while somebody looks at the room', () => {
  const fed = (send: Partial<PixelString['send']>): boolean[] =>
    [false, true].map((inRoom) => new Strings('ws://nowhere').isFed(showOf(send), inRoom));
  expect(fed({})).toEqual([false, false]);
  expect(fed({ protocol: 'ddp' })).toEqual([true, true]);
  expect(fed({ protocol: 'ddp', simulated: true })).toEqual([false, true]);
});

test('a change of the wall is seen at once', () => {
  const strings = new Strings('ws://nowhere');
  const show = showOf({ protocol: 'ddp' });
  expect(strings.isFed(show, false)).toBe(true);
  expect(strings.isFed({ ...show, wall: { ...show.wall, outputs: [] } }, false)).toBe(false);
});

test('nothing is read, and nothing reported, before what feeds them is there', async () => {
  const strings = new Strings('ws://nowhere');
  const asked: string[] = [];
  strings.feed(
    0,
    showOf({ protocol: 'ddp' }),
    {} as Gpu,
    () => {
      asked.push('presented');
      throw new Error('Nothing is on air.');
    },
    { isFrozen: false, inRoom: false, tests: {} },
  );
  expect([asked, strings.report(0)]).toEqual([[], null]);
  const traffic = await strings.traffic();
  expect(await strings.traffic()).toBe(traffic);
});
