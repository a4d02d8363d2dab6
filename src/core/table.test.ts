import { describe, expect, test } from '@jest/globals';
import { randomAt } from './random';
import { readTable } from './table';

const read = (text: string) => {
  const { names, columns } = readTable(text);
  return [names, columns.map((column) => [...column])];
};

describe('reading a table', () => {
  test.each([
    [
      'x,y\n1,2\n3,4',
      [
        ['x', 'y'],
        [
          [1, 3],
          [2, 4],
        ],
      ],
    ],
    [
      '1;2\n3;4\n',
      [
        ['c1', 'c2'],
        [
          [1, 3],
          [2, 4],
        ],
      ],
    ],
    [
      'a\tb\r\n0,5\t1\r\n',
      [
        ['a', 'b'],
        [[0.5], [1]],
      ],
    ],
    [
      '"long, name",b\n1,2',
      [
        ['long, name', 'b'],
        [[1], [2]],
      ],
    ],
    ['7', [['c1'], [[7]]]],
    ['', [[], []]],
    [
      'x,y',
      [
        ['x', 'y'],
        [[], []],
      ],
    ],
  ])('%j', (text, expected) => expect(read(text)).toEqual(expected));
  test.each([
    ['x,y\n1,2\n3', /Row 3 has 1 cells, the first has 2/],
    ['1,2\n3,four', /Row 2, column 2 is “four”, not a number/],
    ['1,2\n3,', /Row 2, column 2 is empty/],
    ['a,b\n1,"2\n3,4', /Row 2, column 2 is “2\n3,4”, not a number/],
  ])('%j says where it is wrong', (text, words) => expect(() => readTable(text)).toThrow(words));
  test('any text is read or refused, never worse', () => {
    const signs = '0123456789.,;\t\n\r"xé-+e ';
    for (let seed = 0; seed < 400; seed++) {
      const length = Math.floor(randomAt(0, seed) * 60);
      let text = '';
      for (let k = 1; k <= length; k++) text += signs[Math.floor(randomAt(k, seed) * signs.length)];
      try {
        const { columns } = readTable(text);
        for (const column of columns) expect([...column].every(Number.isFinite)).toBe(true);
      } catch (error) {
        expect(error).toBeInstanceOf(RangeError);
      }
    }
  });
});

test.each([
  ['numbers', '[1, 2, 3]', ['c1'], [[1, 2, 3]]],
  [
    'rows',
    '[[1, 2], [3, 4]]',
    ['c1', 'c2'],
    [
      [1, 3],
      [2, 4],
    ],
  ],
  [
    'objects',
    '[{"x": 1, "y": 2}, {"x": 3, "y": 4}]',
    ['x', 'y'],
    [
      [1, 3],
      [2, 4],
    ],
  ],
  [
    'columns',
    '{"x": [1, 3], "y": [2, 4]}',
    ['x', 'y'],
    [
      [1, 3],
      [2, 4],
    ],
  ],
  ['nothing', '[]', [], []],
])('JSON of %s is a table', (_, text, names, columns) => {
  const table = readTable(text);
  expect(table.names).toEqual(names);
  expect(table.columns.map((column) => [...column])).toEqual(columns);
});

test.each([
  ['[1, ', /JSON cannot be read/],
  ['[{"x": 1}, {"y": 2}]', /Row 1, y is missing/],
  ['[[1, 2], [3]]', /Row 2 has 1 cells/],
  ['["a"]', /"a", not a number/],
])('%s says what is wrong', (text, sentence) => {
  expect(() => readTable(text)).toThrow(sentence);
});
