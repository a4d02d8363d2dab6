import { describe, expect, test } from '@jest/globals';
import { checkShow } from '../../core/show/validate';
import { catalogue } from '../../nodes/catalogue';
import { controlOfEachType, galleryShow, subjectOf } from './gallery-show';

describe('the gallery', () => {
  const show = galleryShow();

  test('has a sound scene for every kind, with a node of it', () => {
    expect(show.scenes.map(({ id }) => id)).toEqual([...catalogue.keys()]);
    expect(checkShow(show, catalogue)).toEqual([]);
    for (const scene of show.scenes) expect(scene.nodes[subjectOf(scene)!].kind).toBe(scene.id);
  });

  test('gives no id twice, since numbers of cards come by the id of their node', () => {
    const ids = show.scenes.flatMap((scene) => Object.keys(scene.nodes));
    expect(new Set(ids).size).toBe(ids.length);
  });

  test('has every type of control that any kind has', () => {
    const types = new Set(
      [...catalogue.values()].flatMap(({ controls }) => Object.values(controls).map(({ type }) => type)),
    );
    expect(new Set(controlOfEachType().map(({ type }) => type))).toEqual(types);
  });
});
