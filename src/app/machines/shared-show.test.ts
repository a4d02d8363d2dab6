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
    toTheSpare();
    spare.hold(spare.read()!);
  });

  /** What was told arrives. */
  const toTheMain = (): void => {
    for (const [update, isWhole] of toMain.splice(0)) main.take(update, isWhole);
  };
  const toTheSpare = (keepsOwn = true): void => {
    for (const [update, isWhole] of toSpare.splice(0)) spare.hear(update, isWhole, keepsOwn);
  };
  /** What the main machine took of the spare, it tells all. */
  const confirmed = (): void => {
    for (const [update] of toMain) toSpare.push([update, false]);
    toTheMain();
    toTheSpare();
  };

  it('begins as it is, and tells nothing where nothing changed', () => {
    expect(spare.read()).toEqual(start);
    main.write(start);
    spare.write(spare.read()!);
    expect([toSpare, toMain]).toEqual([[], []]);
  });

  it('begins by parts, and is what it was until the last of them', () => {
    const scenes = [start.scenes[0], { ...start.scenes[0], id: 's2', name: 'Bees' }];
    const parts = main.beginByParts({ ...start, name: 'Other', scenes });
    for (const done of [false, false]) {
      expect(parts.next().done).toBe(done);
      expect(toSpare).toEqual([]);
    }
    main.write({ ...start, name: 'Late Night' });
    expect(toSpare.map(([, isWhole]) => isWhole)).toEqual([false]);
    expect(main.read()).toEqual({ ...start, name: 'Late Night' });
    expect(parts.next().done).toBe(true);
    expect(toSpare.map(([, isWhole]) => isWhole)).toEqual([false, true]);
    toTheSpare();
    for (const one of [main, spare]) expect(one.read()).toEqual({ ...start, name: 'Other', scenes });
  });

  it('has what both did at once, on both', () => {
    const mine = { ...start, name: 'Late Night' };
    main.write(mine);
    const its = spare.read()!;
    const edited = { ...its, scenes: [{ ...its.scenes[0], name: 'Bees' }, ...its.scenes.slice(1)] };
    spare.write(edited);
    toTheSpare();
    toTheMain();
    for (const one of [main, spare])
      expect(one.read()).toMatchObject({ name: 'Late Night', scenes: [{ name: 'Bees' }] });
    // What was not touched is the very same, so that it is not drawn anew.
    expect(main.read()!.wall).toBe(mine.wall);
  });

  it('is the show of the main machine again once that begins anew: an edit that was not taken is gone', () => {
    spare.write({ ...spare.read()!, name: '' });
    toTheMain();
    expect(main.read()!.name).toBe('');
    main.begin(start);
    toTheSpare(false);
    expect(spare.read()).toEqual(start);
    expect(toMain).toEqual([]);
  });

  const withScene = (show: Show, name: string): Show => ({
    ...show,
    scenes: [{ ...show.scenes[0], name }, ...show.scenes.slice(1)],
  });

  it('has an edit that was lost on its way, once the main machine tells of all again', () => {
    spare.write(withScene(spare.read()!, 'Bees'));
    // The link was cut with the edit on it, and meanwhile something was done there.
    toMain.length = 0;
    main.begin({ ...start, tempo: { ...start.tempo, bpm: 96 } });
    toTheSpare();
    expect(spare.read()).toMatchObject({ tempo: { bpm: 96 }, scenes: [{ name: 'Bees' }] });
    toTheMain();
    expect(main.read()).toMatchObject({ tempo: { bpm: 96 }, scenes: [{ name: 'Bees' }] });
  });

  it('has an edit that was made before it heard that the main machine began anew', () => {
    main.begin(start);
    spare.write(withScene(spare.read()!, 'Bees'));
    toTheMain();
    // It belongs to a document that is no more.
    expect(main.read()!.scenes[0].name).not.toBe('Bees');
    toTheSpare();
    toTheMain();
    for (const one of [main, spare]) expect(one.read()!.scenes[0].name).toBe('Bees');
  });

  it('is not written again where all came back: what was undone there since stays undone', () => {
    spare.write(withScene(spare.read()!, 'Bees'));
    confirmed();
    main.begin(start);
    toTheSpare();
    expect(spare.read()).toEqual(start);
    expect(toMain).toEqual([]);
  });

  it('takes nothing along to another show', () => {
    spare.write(withScene(spare.read()!, 'Bees'));
    toMain.length = 0;
    main.begin({ ...start, name: 'Morning' });
    toTheSpare();
    expect(spare.read()).toEqual({ ...start, name: 'Morning' });
  });

  it('does not take what is no update', () => {
    expect(() => main.take(new Uint8Array([1, 2, 3, 250]), false)).toThrow();
    expect(main.read()).toEqual(start);
  });
});
