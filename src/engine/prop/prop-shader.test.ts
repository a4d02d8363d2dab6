import { describe, expect, test } from '@jest/globals';
import { randomAt } from '../../core/random';
import type { LightForm } from './light-glsl';
import {
  distanceFragment,
  formKey,
  isOpaque,
  isTinted,
  propFragment,
  propVertex,
  type PropForm,
} from './prop-shader';

const plain: PropForm = {
  drawing: 'surface',
  shading: 'flat',
  picture: null,
  cutOut: false,
  lift: null,
  widthBy: false,
  fog: false,
  colours: false,
  solid: false,
  levels: [],
};
const lights: LightForm[] = [
  { form: 'sun', shadow: true },
  { form: 'ambient', shadow: false },
];

/** A form whose every choice is drawn by lot. */
function formOf(seed: number): PropForm {
  let draws = 0;
  const one = <T>(...from: readonly T[]): T => from[Math.floor(randomAt(draws++, seed) * from.length)];
  const flag = (): boolean => one(true, false);
  return {
    drawing: one('surface', 'lines', 'points', 'hairlines', 'sprites'),
    shading: one('flat', 'lit', 'glow'),
    picture: one(null, 'wired', 'of the shape'),
    cutOut: flag(),
    lift: one(null, { by: flag(), along: one('normal', 'x', 'y', 'z') }),
    widthBy: flag(),
    fog: flag(),
    colours: flag(),
    solid: flag(),
    levels: [],
  };
}

/** What a shader hands on or takes, by name with its type. */
const varyings = (text: string, word: 'in' | 'out'): Map<string, string> =>
  new Map(
    [...text.matchAll(new RegExp(`\\b${word} (\\w+) (\\w+);`, 'g'))].map(([, type, name]) => [name, type]),
  );

const balanced = (text: string): void => {
  for (const [open, close] of ['()', '{}', '[]'])
    expect(text.split(open).length).toBe(text.split(close).length);
  expect(text).not.toMatch(/undefined|NaN|\[object/);
};

describe('shaders of bodies', () => {
  test('whatever is chosen, what the picture takes is handed on, for distances as well', () => {
    for (let seed = 0; seed < 300; seed++) {
      const form = formOf(seed);
      for (const forDistance of [false, true]) {
        const vertex = propVertex(form, forDistance);
        const fragment = forDistance ? distanceFragment(form) : propFragment(form, lights);
        balanced(vertex);
        balanced(fragment);
        const given = varyings(vertex, 'out');
        for (const [name, type] of varyings(fragment, 'in')) expect(given.get(name)).toBe(type);
      }
    }
  });

  test('a plain body hands on nothing, and its colour is all there is', () => {
    expect(varyings(propVertex(plain), 'out').size).toBe(0);
    const fragment = propFragment(plain, lights);
    expect(fragment).not.toMatch(/lightUp|shadowOf|texture\(|discard/);
    expect(isTinted(plain)).toBe(false);
  });

  test('light is only where a body is lit', () => {
    expect(propFragment({ ...plain, shading: 'lit' }, lights)).toContain('lightUp(c.rgb, n, view');
    expect(propFragment({ ...plain, shading: 'lit' }, lights)).toContain('shadowIn');
    expect(propFragment({ ...plain, shading: 'lit' }, lights.slice(1))).not.toContain('shadowIn');
  });

  test('a picture that is wired in is one, those of a shape are chosen from', () => {
    const wired = propFragment({ ...plain, picture: 'wired' }, []);
    expect(wired).toContain('uniform sampler2D picture;');
    expect(wired).not.toContain('onLayer');
    const own = propFragment({ ...plain, picture: 'of the shape' }, []);
    expect(own).toContain('sampler2DArray pictures');
    expect(varyings(propVertex({ ...plain, picture: 'of the shape' }), 'out').get('onLayer')).toBe('float');
  });

  test('what is thin is drawn by the GPU itself where there is too much of it', () => {
    expect(propVertex({ ...plain, drawing: 'lines' })).toContain('in vec3 other');
    expect(propVertex({ ...plain, drawing: 'hairlines' })).not.toContain('other');
    expect(propVertex({ ...plain, drawing: 'sprites' })).toContain('gl_PointSize');
    expect(propVertex({ ...plain, drawing: 'points' })).not.toContain('gl_PointSize');
  });

  test('what surely covers is told from what may let something through', () => {
    expect(isOpaque(plain)).toBe(true);
    expect(isOpaque({ ...plain, drawing: 'hairlines', shading: 'lit' })).toBe(true);
    const through: Partial<PropForm>[] = [
      { picture: 'wired' },
      { cutOut: true },
      { fog: true },
      { colours: true },
      { shading: 'glow' },
      { drawing: 'lines' },
      { drawing: 'points' },
      { drawing: 'sprites' },
      { drawing: 'hairlines', widthBy: true },
    ];
    for (const more of through) expect(isOpaque({ ...plain, ...more })).toBe(false);
  });

  test('whatever changes a shader changes the key that it is kept under', () => {
    const changed = new Map<string, number>();
    for (let seed = 0; seed < 120; seed++) {
      const form = formOf(seed);
      const other = formOf(seed + 1000);
      const text = (of: PropForm): string => propVertex(of) + propFragment(of, lights);
      for (const field of Object.keys(form) as (keyof PropForm)[]) {
        const next = { ...form, [field]: other[field] };
        if (text(next) === text(form)) continue;
        changed.set(field, (changed.get(field) ?? 0) + 1);
        expect([field, formKey(next) === formKey(form)]).toEqual([field, false]);
      }
    }
    // Each choice did change something at some time, or nothing was tested of it.
    const choices = Object.keys(plain).filter((field) => field !== 'levels');
    expect([...changed.keys()].sort()).toEqual(choices.sort());
  });
});
