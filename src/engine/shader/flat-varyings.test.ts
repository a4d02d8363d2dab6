import { expect, test } from '@jest/globals';
import { FlatVaryings } from './flat-varyings';

test('numbers share vectors, the same expression is handed on once', () => {
  const corners = new FlatVaryings(3);
  expect(corners.take('vec3', 'place')).toBe('corner0.xyz');
  expect(corners.take('vec2', 'size')).toBe('corner1.xy');
  expect(corners.take('float', 'radius')).toBe('corner0.w');
  expect(corners.take('vec4', 'colour')).toBe('corner2');
  expect(corners.take('vec3', 'place')).toBe('corner0.xyz');
  expect(corners.declared).toBe('flat in vec4 corner0;\nflat in vec4 corner1;\nflat in vec4 corner2;');
  expect(corners.given.split('\n').map((line) => line.trim())).toEqual([
    'corner0 = vec4(place, radius);',
    'corner1 = vec4(size, 0.0, 0.0);',
    'corner2 = vec4(colour);',
  ]);
  expect(corners.start).toBe('');
});

test('a matrix goes column by column', () => {
  const corners = new FlatVaryings(3);
  expect(corners.take('mat3', 'back')).toBe('mat3(corner0.xyz, corner1.xyz, corner2.xyz)');
  expect(corners.take('float', 'radius')).toBe('corner0.w');
  expect(corners.given).toContain('corner2 = vec4(back[2], 0.0);');
});

test('what does not fit is copied once; without capacity nothing is handed on', () => {
  const corners = new FlatVaryings(2);
  expect(corners.take('mat3', 'back')).toBe('copied0');
  expect(corners.take('vec4', 'a')).toBe('corner0');
  expect(corners.take('vec4', 'b')).toBe('corner1');
  expect(corners.take('float', 'c')).toBe('copied1');
  expect(corners.declared).toContain('mat3 copied0;\nfloat copied1;');
  expect(corners.start).toBe('copied0 = back; copied1 = c;');
  const none = new FlatVaryings(0);
  expect(none.take('vec3', 'place')).toBe('copied0');
  expect(none.handed + none.given).toBe('');
});
