import { describe, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { searchKinds } from './add-search';

const found = (search: string): string[] => searchKinds([...catalogue.values()], search).map(({ id }) => id);

describe('the search for a kind', () => {
  test('every kind is found first by its own name', () => {
    for (const kind of catalogue.values()) expect(found(kind.label)[0]).toBe(kind.id);
  });

  test.each([
    ['grad', 'gradient'],
    ['copies', 'instances'],
    ['vignette', 'gradient'],
    ['video', 'clip'],
    ['logo', 'picture'],
  ])('“%s” finds %s', (search, id) => expect(found(search)).toContain(id));

  test.each([
    ['make copies of a shape follow pixels', 'instances'],
    ['something that glows along a line', 'beam'],
    ['the brightness of a picture as numbers', 'pixel-reader'],
  ])('a whole need is understood: “%s” finds %s', (search, id) =>
    expect(found(search).slice(0, 6)).toContain(id),
  );

  test('all the words have to be found', () => expect(found('noise zebra')).toEqual([]));
});
