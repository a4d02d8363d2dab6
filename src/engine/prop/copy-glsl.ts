import type { InstancesProp } from '../../core/kind/prop';

/** What of copies stands in a shader's code. What is not used costs nothing then: branches do, on every GPU. */
export interface CopyForm {
  /** Whether place (with scale), turn, size and tint have a value for each copy. */
  many: readonly [boolean, boolean, boolean, boolean];
  /** Whether it is turned at all, and grows from another place than its own 0, 0, 0. */
  turned: boolean;
  anchored: boolean;
  points: null | 'exact' | InstancesProp['spread'];
  facing: InstancesProp['facing'];
  pixels: null | {
    mode: 'places' | 'tints' | 'rows';
    rows: readonly boolean[];
    spread: InstancesProp['spread'] | 'exact';
  };
  palette: null | 'once' | 'repeat' | 'mirror';
  part: null | 'cells' | 'cells each' | 'place';
  region: null | 'ball' | 'box';
  outward: boolean;
  start: null | 'one' | 'many';
}

export const copyMaps = [
  'placeMap',
  'turnMap',
  'sizeMap',
  'tintMap',
  'pointMap',
  'facingMap',
  'pixelMap',
  'paletteMap',
  'moreMap',
];

/** Functions that the code of every level calls. */
export const copyHelpers = `
// Tables are 1,024 wide.
vec4 entry(highp sampler2D map, int i) { return texelFetch(map, ivec2(i & 1023, i >> 10), 0); }
// Twin of spreadIndex in core; x and y are the two entries, z the share of the second.
vec3 stretchTo(int i, int n, int m) {
  if (m <= 1) return vec3(0.0);
  float at = float(i) * float(m - 1) / float(max(1, n - 1));
  float low = min(floor(at), float(m - 2));
  return vec3(low, low + 1.0, at - low);
}
int repeatTo(int i, int m) { return i % max(1, m); }
int mirrorTo(int i, int m) { int k = i % max(1, 2 * m); return k < m ? k : 2 * m - 1 - k; }
int holdTo(int i, int m) { return min(i, m - 1); }
mat3 turnMatrix(vec3 a) {
  vec3 c = cos(a); vec3 s = sin(a);
  return mat3(c.y * c.z, c.y * s.z, -s.y,
              s.x * s.y * c.z - c.x * s.z, s.x * s.y * s.z + c.x * c.z, s.x * c.y,
              c.x * s.y * c.z + s.x * s.z, c.x * s.y * s.z - s.x * c.z, c.x * c.y);
}
mat3 facingMatrix(vec3 way) {
  vec3 z = normalize(way + vec3(0.0, 0.0, 1e-6));
  vec3 x = normalize(cross(abs(z.y) > 0.99 ? vec3(1.0, 0.0, 0.0) : vec3(0.0, 1.0, 0.0), z));
  return mat3(x, cross(z, x), z);
}
`;

const indexOf = (spread: string, i: string, m: string): string => `${spread}To(${i}, ${m})`;

/**
 * The function `stand_k` that puts a point of the body where copy i of level k is. Its uniforms and maps have the number of
 * their level at the end. `line`: the other end of its line is moved as well; `lit`: its normal; `uv`: its place on the
 * picture.
 */
export function copyGlsl(
  form: CopyForm,
  k: number,
  uses: { line: boolean; normal: boolean; uv: boolean },
): string {
  const u = (name: string): string => `${name}_${k}`;
  const [placeMany, turnMany, sizeMany, tintMany] = form.many;
  const { pixels } = form;
  const rows = pixels?.rows ?? [];
  const places = pixels?.mode === 'places' || rows[0];
  const turning = turnMany || rows[2];
  const declared: string[] = [
    `uniform int ${u('copies')};`,
    `uniform vec3 ${u('placeOne')}; uniform mat3 ${u('turnOne')}; uniform vec3 ${u('sizeOne')}; uniform vec4 ${u('tintOne')};`,
    `uniform vec3 ${u('anchor')};`,
  ];
  const map = (name: string): void => void declared.push(`uniform highp sampler2D ${u(name)};`);
  if (placeMany) map('placeMap');
  if (turnMany) map('turnMap');
  if (sizeMany) map('sizeMap');
  if (tintMany) map('tintMap');
  const code: string[] = [];
  code.push(
    placeMany ? `vec4 ps = entry(${u('placeMap')}, i); vec3 move = ps.xyz;` : `vec3 move = ${u('placeOne')};`,
  );
  const scale = placeMany ? ' * ps.w' : '';
  code.push(`vec3 size = ${u('sizeOne')}${sizeMany ? ` * entry(${u('sizeMap')}, i).xyz` : ''}${scale};`);
  if (turning) code.push(`vec3 turn = ${turnMany ? `entry(${u('turnMap')}, i).xyz` : `${u('turnBase')}`};`);
  if (turning && !turnMany) declared.push(`uniform vec3 ${u('turnBase')};`);
  code.push(`tint *= ${tintMany ? `entry(${u('tintMap')}, i)` : u('tintOne')};`);
  const wantsNormal = form.facing === 'normal';
  code.push('vec3 outward = vec3(0.0, 0.0, 1.0);');
  if (form.points) {
    map('pointMap');
    if (wantsNormal) map('facingMap');
    declared.push(`uniform int ${u('points')};`);
    if (form.points === 'stretch') {
      code.push(`vec3 on = stretchTo(i, ${u('copies')}, ${u('points')});`);
      const read = (name: string): string =>
        `mix(entry(${u(name)}, int(on.x)), entry(${u(name)}, int(on.y)), on.z).xyz`;
      code.push(`move += ${read('pointMap')};`);
      if (wantsNormal) code.push(`outward = ${read('facingMap')};`);
    } else {
      const at = form.points === 'exact' ? 'i' : indexOf(form.points, 'i', u('points'));
      code.push(`int on = ${at};`, `move += entry(${u('pointMap')}, on).xyz;`);
      if (wantsNormal) code.push(`outward = entry(${u('facingMap')}, on).xyz;`);
    }
  }
  if (pixels) {
    map('pixelMap');
    declared.push(
      `uniform ivec4 ${u('pixelRows')}; uniform vec3 ${u('pixelReach')}; uniform vec3 ${u('pixelTurn')}; uniform vec2 ${u('pixelSize')};`,
    );
    const m = u('pixelMap');
    if (pixels.mode === 'rows') {
      code.push(`ivec2 ps2 = textureSize(${m}, 0);`);
      const exact = pixels.spread !== 'stretch';
      const index =
        pixels.spread === 'exact'
          ? 'i'
          : pixels.spread === 'stretch'
            ? ''
            : indexOf(pixels.spread, 'i', 'ps2.x');
      code.push(exact ? `int px = ${index};` : `vec3 px = stretchTo(i, ${u('copies')}, ps2.x);`);
      const row = (r: string): string => {
        const y = `min(${u('pixelRows')}.${r}, ps2.y - 1)`;
        return exact
          ? `texelFetch(${m}, ivec2(px, ${y}), 0)`
          : `mix(texelFetch(${m}, ivec2(int(px.x), ${y}), 0), texelFetch(${m}, ivec2(int(px.y), ${y}), 0), px.z)`;
      };
      if (rows[0]) code.push(`move += (${row('x')}.xyz * 2.0 - 1.0) * ${u('pixelReach')};`);
      if (rows[1]) code.push(`tint *= ${row('y')};`);
      if (rows[2]) code.push(`turn += (${row('z')}.xyz * 2.0 - 1.0) * ${u('pixelTurn')};`);
      if (rows[3]) code.push(`size *= mix(${u('pixelSize')}.x, ${u('pixelSize')}.y, ${row('w')}.x);`);
    } else {
      code.push(`ivec2 ps2 = textureSize(${m}, 0);`);
      const all = 'ps2.x * ps2.y';
      const at =
        pixels.spread === 'exact'
          ? 'i'
          : pixels.spread === 'stretch'
            ? `int(dot(stretchTo(i, ${u('copies')}, ${all}).xz, vec2(1.0)) + 0.5)`
            : indexOf(pixels.spread, 'i', all);
      code.push(`int px = ${at};`, `vec4 pixel = texelFetch(${m}, ivec2(px % ps2.x, px / ps2.x), 0);`);
      if (places) code.push(`move += (pixel.xyz * 2.0 - 1.0) * ${u('pixelReach')};`);
      else code.push('tint *= pixel;');
    }
    // A place that is no number would draw over everything, or nothing: such a copy is left out.
    if (places) code.push('if (!(abs(move.x + move.y + move.z) < 1e9)) move = vec3(0.0), size = vec3(0.0);');
  }
  if (form.palette) {
    map('paletteMap');
    declared.push(`uniform float ${u('paletteTimes')};`);
    const share = `(float(i) + 0.5) / float(max(1, ${u('copies')}))`;
    const along =
      form.palette === 'once'
        ? share
        : form.palette === 'repeat'
          ? `fract(${share} * ${u('paletteTimes')})`
          : `1.0 - abs(1.0 - 2.0 * fract(${share} * ${u('paletteTimes')}))`;
    code.push(`tint *= textureLod(${u('paletteMap')}, vec2(${along}, 0.5), 0.0);`);
  }
  const more = form.part === 'cells each' || form.start === 'many';
  if (more) {
    map('moreMap');
    code.push(`vec4 more = entry(${u('moreMap')}, i);`);
  }
  code.push('vec3 home = move;');
  if (form.start) {
    declared.push(`uniform vec4 ${u('start')};`);
    const s = u('start');
    code.push(`float age = ${s}.w - ${form.start === 'many' ? 'more.y' : `${s}.x`};`);
    code.push(`float grown = clamp(age / max(${s}.y, 1e-4), 0.0, 1.0);`);
    code.push(
      `grown = ${s}.z > 0.0 ? min(grown, clamp((${s}.y + ${s}.z - age) / max(${s}.y, 1e-4), 0.0, 1.0)) : grown;`,
    );
    code.push('size *= age < 0.0 ? 0.0 : grown * grown * (3.0 - 2.0 * grown);');
  }
  let extra = '';
  if (form.region) {
    declared.push(
      `uniform vec3 ${u('regionPlace')}; uniform vec3 ${u('regionSize')}; uniform vec4 ${u('regionHow')}; uniform vec3 ${u('regionTurn')}; uniform vec4 ${u('regionTint')};`,
    );
    code.push(`vec3 aside = (move - ${u('regionPlace')}) / max(${u('regionSize')}, vec3(1e-5));`);
    code.push(
      form.region === 'ball'
        ? 'float rim = length(aside);'
        : 'vec3 rims = abs(aside); float rim = max(rims.x, max(rims.y, rims.z));',
    );
    const how = u('regionHow');
    code.push(`float within = 1.0 - smoothstep(1.0 - max(${how}.y, 1e-4), 1.0, rim);`);
    code.push(`size *= mix(1.0, ${how}.z, within);`, `tint *= mix(vec4(1.0), ${u('regionTint')}, within);`);
    extra = form.outward
      ? `move += normalize(aside + vec3(0.0, 0.0, 1e-5)) * ${how}.x * within;`
      : `move += m * vec3(0.0, 0.0, ${how}.x * within);`;
  }
  const facing = form.facing !== 'none';
  const matrix = turning || form.turned || facing || form.region !== null;
  if (matrix)
    code.push(`mat3 m = ${turning ? 'turnMatrix(turn)' : form.turned ? u('turnOne') : 'mat3(1.0)'};`);
  if (form.facing === 'camera') code.push('m = transpose(mat3(view)) * m;');
  if (form.facing === 'normal') code.push('m = facingMatrix(outward) * m;');
  if (form.facing === 'outward') code.push('m = facingMatrix(move) * m;');
  if (form.facing === 'direction') {
    declared.push(`uniform vec3 ${u('toward')};`);
    code.push(`m = facingMatrix(${u('toward')}) * m;`);
  }
  if (form.region) code.push(extra, `m = m * turnMatrix(${u('regionTurn')} * within);`);
  const from = (point: string): string => (form.anchored ? `(${point} - ${u('anchor')})` : point);
  const placed = (point: string): string => (matrix ? `m * (${point})` : point);
  code.push(`vec3 grown3 = ${from('p')} * size;`);
  if (form.part === 'place') {
    declared.push(`uniform vec2 ${u('frame')};`);
    if (uses.uv) code.push(`at = (home.xy + grown3.xy) / ${u('frame')} + 0.5;`);
  } else if (form.part) {
    declared.push(`uniform vec3 ${u('cells')};`);
    if (uses.uv) {
      const number = form.part === 'cells each' ? 'more.x' : `${u('cells')}.z`;
      code.push(
        `float cell = floor(float(i) + ${number} + 0.5);`,
        `vec2 grid = ${u('cells')}.xy;`,
        'at = (at + vec2(mod(cell, grid.x), mod(floor(cell / grid.x), grid.y))) / grid;',
      );
    }
  }
  code.push(`p = ${placed('grown3')} + move;`);
  if (uses.line) code.push(`q = ${placed(`${from('q')} * size`)} + move;`);
  if (uses.normal) code.push(`n = ${placed('n / max(abs(size), vec3(1e-6)) * sign(size + vec3(1e-9))')};`);
  code.push('dotSize *= size.xy;');
  return `${declared.join('\n')}
void stand_${k}(int i, inout vec3 p, inout vec3 q, inout vec3 n, inout vec4 tint, inout vec2 at, inout vec2 dotSize) {
  ${code.join('\n  ')}
}
`;
}
