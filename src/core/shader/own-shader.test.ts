import { expect, test } from '@jest/globals';
import { OwnShaderError, readOwnShader } from './own-shader';

const text = (head: string, body: string): string => `/*\n${head}\n*/\n${body}`;
const paint = 'vec4 paint(vec2 place) { return vec4(place, 0.0, 1.0); }';

test('the head becomes inputs and controls, the names become reads', () => {
  const own = readOwnShader(
    text(
      '{ "pictures": { "under": "Under", "glassMap": {} }, "controls": { "speed": { "type": "number", "default": 2, "range": [0, 9], "unit": "/s" }, "form": { "type": "choice", "options": ["Soft", "Hard"], "default": "Hard" } } }',
      'vec4 paint(vec2 place) {\n  float t = time * speed;\n  return under(place + glassMap(place).rg / under.size) * t;\n}',
    ),
  );
  expect(own.inputs).toMatchObject({ under: { label: 'Under' }, glassMap: { label: 'Glass map' } });
  expect(own.controls).toMatchObject({
    speed: { type: 'number', default: 2, range: [0, 9], unit: '/s', label: 'Speed' },
    form: { type: 'choice', options: { o0: 'Soft', o1: 'Hard' }, default: 'o1' },
  });
  expect(own.code).toContain('$time * $speed');
  expect(own.code).toContain('@under(place + @glassMap(place).rg / @under.size)');
  expect(own.moves).toBe(true);
});

test('lines keep their numbers, comments and parts of vectors are left alone', () => {
  const own = readOwnShader(
    text(
      '{ "controls": { "x": { "type": "number" } } }',
      `// x is a control\nvec4 paint(vec2 place) { return vec4(place.x, x, 0.0, 1.0); }`,
    ),
  );
  expect(own.code.split('\n')).toHaveLength(5);
  expect(own.code.split('\n')[4]).toBe('vec4 paint(vec2 place) { return vec4(place.x, $x, 0.0, 1.0); }');
  expect(own.moves).toBe(false);
});

test.each([
  [paint, 1, /has to begin with a comment/],
  ['/* {}\n' + paint, 1, /no end/],
  [text('{ "controls": }', paint), 2, /breaks off/],
  [text('{ "uniforms": {} }', paint), 2, /"pictures" and "controls", not "uniforms"/],
  [text('{ "controls": {\n "time": { "type": "number" } } }', paint), 3, /time is taken/],
  [text('{ "controls": {\n\n "2x": { "type": "number" } } }', paint), 4, /no name/],
  [text('{ "controls": { "a": { "type": "text" } } }', paint), 2, /nothing is known of the type "text"/],
  [text('{ "controls": { "a": { "type": "number", "range": [1] } } }', paint), 2, /two numbers/],
  [text('{ "controls": { "a": { "type": "choice", "options": [] } } }', paint), 2, /list of words/],
  [text('{}', 'float helper() { return 1.0; }'), 3, /vec4 paint/],
  [text('{}', `uniform float mine;\n${paint}`), 4, /no place here/],
  [
    text('{}', 'vec4 paint(vec2 place) {\n  while (true) { place *= 2.0; }\n  return vec4(0.0); }'),
    5,
    /never ends/,
  ],
  [
    text('{}', 'vec4 paint(vec2 place) {\n\n  for (;;) place *= 2.0;\n  return vec4(0.0); }'),
    6,
    /never ends/,
  ],
])('%j is refused at line %i', (code, line, reason) => {
  let error: unknown;
  try {
    readOwnShader(code);
  } catch (caught) {
    error = caught;
  }
  expect(error).toBeInstanceOf(OwnShaderError);
  expect((error as OwnShaderError).line).toBe(line);
  expect((error as OwnShaderError).message).toMatch(reason);
});

test('a word that is split over two lines is still read', () => {
  expect(() => readOwnShader(text('{}', `uni\\\nform float mine;\n${paint}`))).toThrow(
    /uniform has no place/,
  );
  const own = readOwnShader(text('{}', `#define TWO \\\n  2.0\n${paint.replace('0.0', 'TWO')}`));
  expect(own.code.split('\n')).toHaveLength(6);
  expect(own.code).toContain('#define TWO   2.0');
});
