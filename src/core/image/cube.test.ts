import { expect, test } from '@jest/globals';
import { CubeError, cubePixels, parseCube } from './cube';
import { sniff } from './sniff';

const plain = (size: number): string => {
  const lines = [`TITLE "As it comes"`, `LUT_3D_SIZE ${size}`, ''];
  for (let b = 0; b < size; b++)
    for (let g = 0; g < size; g++)
      for (let r = 0; r < size; r++) lines.push([r, g, b].map((v) => v / (size - 1)).join(' '));
  return lines.join('\n');
};

test('a table of three dimensions is read with red running fastest', () => {
  const table = parseCube(plain(3));
  expect(table).toMatchObject({ title: 'As it comes', dimensions: 3, size: 3 });
  expect([...table.entries.slice(3, 6)]).toEqual([0.5, 0, 0]);
  expect([...table.entries.slice(9, 12)]).toEqual([0, 0.5, 0]);
});

test('a curve with a domain of its own is read, comments and odd spaces too', () => {
  const table = parseCube(
    '# made by hand\r\nLUT_1D_SIZE 2\r\nDOMAIN_MIN 0 0 -1\r\nDOMAIN_MAX 2 1 1\r\n\t0 0 0\r\n1 .5  1e-1\r\n',
  );
  expect(table).toMatchObject({ dimensions: 1, size: 2, domainMin: [0, 0, -1], domainMax: [2, 1, 1] });
  expect([...table.entries].map((v) => Math.round(v * 10) / 10)).toEqual([0, 0, 0, 1, 0.5, 0.1]);
});

test.each([
  ['LUT_3D_SIZE 2\n0 0 0', /holds 1 colours, .* needs 8/],
  ['LUT_3D_SIZE 2\n0 0 nothing', /Line 2: three numbers/],
  ['LUT_3D_SIZE 1', /Line 1: a size of 1/],
  ['LUT_3D_SIZE 200', /from 2 to 65/],
  ['LUT_1D_SIZE 2\nLUT_3D_SIZE 2', /Line 2: the size of the table is given twice/],
  ['LUT_9D_SIZE 2', /Line 1: nothing is known of LUT_9D_SIZE/],
  ['0 0 0', /no line LUT_1D_SIZE/],
  ['LUT_1D_SIZE 2\nDOMAIN_MIN 1 0 0\n0 0 0\n1 1 1', /DOMAIN_MAX has to lie above/],
])('%j is refused with its reason', (text, reason) => {
  expect(() => parseCube(text)).toThrow(CubeError);
  expect(() => parseCube(text)).toThrow(reason);
});

test('as pixels, the head stands below and each row holds one run of red', () => {
  const { width, height, rgba } = cubePixels(parseCube(plain(4)));
  expect([width, height]).toEqual([4, 17]);
  expect([...rgba.slice(0, 2)]).toEqual([3, 4]);
  const at = (x: number, y: number): number[] => [
    ...rgba.slice(4 * (y * width + x), 4 * (y * width + x) + 3),
  ];
  expect(at(3, 1)).toEqual([1, 0, 0]);
  expect(at(0, 1 + 4 * 3)).toEqual([0, 0, 1]);
});

test('a small table keeps room for its head, a long curve goes on in the next row', () => {
  expect(cubePixels(parseCube('LUT_1D_SIZE 2\n0 0 0\n1 1 1')).width).toBe(4);
  const long = `LUT_1D_SIZE 5000\n${'0 0 0\n'.repeat(4999)}1 1 1`;
  const { width, height, rgba } = cubePixels(parseCube(long));
  expect([width, height]).toEqual([4096, 3]);
  expect(rgba[4 * (2 * width + (4999 - 4096))]).toBe(1);
});

test('files are known by their first bytes', () => {
  const bytes = (text: string): Uint8Array => Uint8Array.from(text, (c) => c.charCodeAt(0));
  expect(sniff(bytes('\x89PNG\r\n'))).toBe('png');
  expect(sniff(bytes('RIFF0000WEBPVP8 '))).toBe('webp');
  expect(sniff(bytes('\0\0\0\x1cftypavif'))).toBe('avif');
  expect(sniff(bytes('\0\0\0\x1cftypisom'))).toBe('mp4');
  expect(sniff(bytes('\x1a\x45\xdf\xa3'))).toBe('webm');
  expect(sniff(bytes('<?xml version="1.0"?>\n<svg xmlns="">'))).toBe('svg');
  expect(sniff(bytes('#?RADIANCE\n'))).toBe('hdr');
  expect(sniff(bytes('TITLE "x"\nLUT_3D_SIZE 2'))).toBe('cube');
  expect(sniff(bytes('hello'))).toBe('unknown');
  expect(sniff(new Uint8Array())).toBe('unknown');
});
