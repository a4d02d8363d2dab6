import { describe, expect, test } from '@jest/globals';
import { defaultLights, plainLight } from '../../core/kind/prop';
import { lightDeclared, lightForms, lightGlsl, lightKey, lightUniforms, mostShadows } from './light-glsl';

const spot = { ...plainLight, shape: 'spot' as const, place: [0, 2, 0] as const, shadow: 0.5 };

describe('numbers of lights', () => {
  test('strength is in the colour, ways are one long and lead to the light', () => {
    const { lightColour, lightWay, lightPlace } = lightUniforms([
      { ...spot, colour: [1, 0.5, 0.25, 1], strength: 4, aim: [0, -1, 0], reach: 3 },
    ]);
    expect([...lightColour]).toEqual([4, 2, 1]);
    expect([...lightWay]).toEqual([0, 1, 0]);
    expect([...lightPlace]).toEqual([0, 2, 0, 3]);
  });

  test('a light that aims at itself, or reaches nowhere, gives numbers all the same', () => {
    const all = lightUniforms([{ ...spot, aim: [0, 2, 0], reach: 0 }]);
    for (const list of Object.values(all)) expect([...list].every(Number.isFinite)).toBe(true);
    expect(all.lightPlace[3]).toBeGreaterThan(0);
  });

  test('the cone is full inside and gone at half its opening; a larger light fades over more of it', () => {
    const [edge, full] = lightUniforms([{ ...spot, angleRad: Math.PI / 2, soft: 0 }]).lightMore;
    expect(edge).toBeCloseTo(Math.cos(Math.PI / 4), 6);
    expect(full).toBeGreaterThan(edge);
    expect(lightUniforms([{ ...spot, angleRad: Math.PI / 2, soft: 1 }]).lightMore[1]).toBeCloseTo(1, 6);
  });

  test('without lights there is still a list, as shaders need one', () => {
    for (const list of Object.values(lightUniforms([]))) expect(list.length).toBeGreaterThanOrEqual(3);
    expect(lightDeclared([])).toContain('lightColour[1]');
  });
});

describe('the code of lights', () => {
  test('only so many cast shadows, the first that are wired', () => {
    const forms = lightForms(Array.from({ length: 6 }, () => spot));
    expect(forms.filter(({ shadow }) => shadow)).toHaveLength(mostShadows);
    expect(forms.slice(mostShadows).every(({ shadow }) => !shadow)).toBe(true);
    expect(lightKey(forms.slice(3, 5))).toBe('spot* spot');
  });

  test('each form costs what it needs: a sun no distance, an ambient light no direction', () => {
    const code = (shape: (typeof plainLight)['shape'], shadow: number): string =>
      lightGlsl(lightForms([{ ...plainLight, shape, shadow }]));
    expect(code('ambient', 1)).not.toMatch(/dot\(n, to\)|shadowOf\(0/);
    expect(code('sun', 0)).not.toMatch(/length\(to\)|shadowOf\(0/);
    expect(code('sun', 1)).toContain('shadowOf(0');
    expect(code('point', 0)).toContain('length(to)');
    expect(code('point', 0)).not.toContain('smoothstep(lightMore');
    expect(code('spot', 0)).toContain('smoothstep(lightMore[0].x, lightMore[0].y');
  });

  test('numbers are read as whoever uses it wants', () => {
    const asked: string[] = [];
    const code = lightGlsl(lightForms(defaultLights), (type, uniform) => {
      asked.push(`${type} ${uniform}`);
      return 'given';
    });
    expect(asked).toEqual([
      'vec3 lightColour[0]',
      'vec3 lightWay[0]',
      'float lightMore[0].z',
      'vec3 lightColour[1]',
    ]);
    expect(code).not.toContain('lightColour[');
  });
});
