import { beforeEach, describe, expect, it } from '@jest/globals';
import { makeShow } from '../../core/show/create';
import { addNode } from '../../core/show/edit';
import type { Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { SharedShow } from './shared-show';

type Told = [update: Uint8Array, isWhole: boolean];

describe('a show that two machines write to', () => {
  let toSpare: Told[];
  let toMain: Told[];
  let main: SharedShow;
  let spare: SharedShow;
  const start = ((): Show => {
    const show = makeShow(catalogue, 'Night');
    addNode(show.scenes[0], catalogue, 'noise', [0, 0]);
    return show;
  })();

  beforeEach(() => {
    [toSpare, toMain] = [[], []];
    main = new SharedShow((...told) => toSpare.push(told));
    spare = new SharedShow((...told) => toMain.push(told));
    main.begin(start);
    pass(toSpare, spare);
    spare.hold(spare.read()!);
  });

  /** What was told arrives. */
  const pass = (told: Told[], at: SharedShow): void => {
    for (const [update, isWhole] of told.splice(0)) at.take(update, isWhole);
  };

  it('begins as it is, and tells nothing where nothing changed', () => {
    expect(spare.read()).toEqual(start);
    main.write(start);
    spare.write(spare.read()!);
    expect([toSpare, toMain]).toEqual([[], []]);
  });

  it('has what both did at once, on both', () => {
    const mine = { ...start, name: 'Late Night' };
    main.write(mine);
    const its = spare.read()!;
    const edited = { ...its, scenes: [{ ...its.scenes[0], name: 'Bees' }, ...its.scenes.slice(1)] };
    spare.write(edited);
    pass(toSpare, spare);
    pass(toMain, main);
    for (const one of [main, spare])
      expect(one.read()).toMatchObject({ name: 'Late Night', scenes: [{ name: 'Bees' }] });
    // What was not touched is the very same, so that it is not drawn anew.
    expect(main.read()!.wall).toBe(mine.wall);
  });

  it('is the show of the main machine again once that begins anew: an edit that was not taken is gone', () => {
    const its = spare.read()!;
    spare.write({ ...its, name: '' });
    pass(toMain, main);
    expect(main.read()!.name).toBe('');
    main.begin(start);
    pass(toSpare, spare);
    expect(spare.read()).toEqual(start);
  });

  it('does not take what is no update', () => {
    expect(() => main.take(new Uint8Array([1, 2, 3, 250]), false)).toThrow();
    expect(main.read()).toEqual(start);
  });
});
