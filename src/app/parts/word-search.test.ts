import { describe, expect, test } from '@jest/globals';
import { searchWords } from './word-search';

const things = [
  { name: 'Blackout', words: ['dark', 'panic'], summary: 'Takes the light off the stage' },
  { name: 'Freeze', words: ['hold', 'stop'], summary: 'Holds the picture on the stage' },
  { name: 'Frame', words: ['box'], summary: 'Lays a frame around nodes' },
];
const found = (search: string): string[] =>
  searchWords(things, search, (thing) => thing).map(({ name }) => name);

describe('the search by words', () => {
  test('the name comes before what one would say, and that before the text', () => {
    expect(found('fr')).toEqual(['Frame', 'Freeze']);
    expect(found('stop')).toEqual(['Freeze']);
    expect(found('stage')).toEqual(['Freeze', 'Blackout']);
  });
  test('every word counts, but those that say nothing', () => {
    expect(found('hold the picture on the stage')).toEqual(['Freeze']);
    expect(found('dark frame')).toEqual([]);
  });
  test('typing errors are forgiven where nothing else is found', () => {
    expect(found('blakcout')).toEqual(['Blackout']);
    expect(found('freze')[0]).toBe('Freeze');
    expect(found('rfame')).toEqual(['Frame']);
    expect(found('obx')).toEqual(['Frame']);
    expect(found('qqqqqq')).toEqual([]);
  });
  test('nothing typed finds nothing', () => expect(found('  ?')).toEqual([]));
});
