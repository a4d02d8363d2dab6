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
    ['feedback', 'blend'],
    ['strobe', 'envelope'],
    ['trails', 'frame-store'],
    ['opacity', 'blend'],
    ['black and white', 'hue-saturation'],
    ['shake', 'drift'],
    ['waveform', 'oscillator'],
    ['random rotation', 'scatter'],
    ['step sequencer', 'values'],
    ['add pictures', 'blend'],
    ['kaleidoscope', 'mirror'],
    ['random numbers', 'scatter'],
  ])('“%s” finds %s', (search, id) => expect(found(search)).toContain(id));

  test.each([
    ['make copies of a shape follow pixels', 'instances'],
    ['something that glows along a line', 'beam'],
    ['the brightness of a picture as numbers', 'pixel-reader'],
  ])('a whole need is understood: “%s” finds %s', (search, id) =>
    expect(found(search).slice(0, 6)).toContain(id),
  );

  test.each([
    ['nosie', 'noise'],
    ['gradeint', 'gradient'],
    ['instnaces', 'instances'],
    ['oscilator', 'oscillator'],
    ['kaleidoskope', 'field-mirror'],
    ['brigthness', 'levels'],
  ])('a typing error is forgiven: “%s” finds %s', (search, id) =>
    expect(found(search).slice(0, 5)).toContain(id),
  );

  test('of two that fit as well, a favourite comes first', () => {
    const kinds = [...catalogue.values()];
    const plain = searchKinds(kinds, 'picture').map(({ id }) => id);
    const liked = plain.at(-1)!;
    const after = searchKinds(kinds, 'picture', new Set([liked])).map(({ id }) => id);
    expect(after.indexOf(liked)).toBeLessThan(plain.indexOf(liked));
    expect(after[0]).toBe('picture');
  });

  test('all the words have to be found', () => expect(found('noise zebra')).toEqual([]));
});
