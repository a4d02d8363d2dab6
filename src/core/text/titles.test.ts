import { expect, test } from '@jest/globals';
import { readTitles, titleAt } from './titles';

const srt = `1
00:00:01,000 --> 00:00:02,500
First <i>light</i>
over the hives

2
00:01:02,040 --> 00:01:03,000
Second &amp; last
`;

test('SubRip titles are read with their times, without tags', () => {
  expect(readTitles(srt)).toEqual([
    { from: 1, to: 2.5, text: 'First light\nover the hives' },
    { from: 62.04, to: 63, text: 'Second & last' },
  ]);
});

test('WebVTT is read past its head, notes, names and settings', () => {
  const vtt =
    '\uFEFFWEBVTT\r\n\r\nNOTE made up\r\n\r\nintro\r\n00:04.000 --> 00:05.5 align:start\r\nLater\r\n\r\n01:00:00.000 --> 01:00:01.000\r\nAn hour on\r\n';
  expect(readTitles(vtt)).toEqual([
    { from: 4, to: 5.5, text: 'Later' },
    { from: 3600, to: 3601, text: 'An hour on' },
  ]);
});

test('a title is up from its first moment to before its last; two at once lie one below the other', () => {
  const titles = readTitles('00:01.000 --> 00:03.000\nA\n\n00:02.000 --> 00:04.000\nB\n');
  expect([0.99, 1, 2, 3, 4].map((at) => titleAt(titles, at))).toEqual(['', 'A', 'A\nB', 'B', '']);
});

test('what cannot be read says where', () => {
  expect(() => readTitles('hello')).toThrow(/no times/);
  expect(() => readTitles('\n00:03.000 --> 00:02.000\nA')).toThrow(/Line 2/);
  expect(readTitles('  ')).toEqual([]);
});
