import { beforeEach, describe, expect, test } from '@jest/globals';
import type { IUniform, RawShaderMaterial, Texture, WebGLRenderTarget } from 'three';
import type { Gpu } from '../gpu/gpu';
import { plainLook, type Look } from '../image/look';
import { wholePicture } from './mapping';
import { Presenter, type Presented } from './presenter';

const texture = (width: number, height: number): Texture => ({ image: { width, height } }) as Texture;
const look = (width: number, height: number, more: Partial<Look> = {}): Look => ({
  ...plainLook(texture(width, height)),
  ...more,
});
const only = (first: Look, more: Partial<Presented> = {}): Presented => ({
  first,
  second: look(1, 1),
  fade: 0,
  level: 1,
  ...more,
});

describe('the presenter', () => {
  let compiled: string[];
  let passes: { text: string; uniforms: Record<string, unknown>; target: unknown }[];
  let presenter: Presenter;
  const size = { width: 640, height: 360 };
  const aspect = 16 / 9;
  const last = () => passes[passes.length - 1];
  const form = (): string =>
    last().text.includes('texelFetch') ? 'exact' : last().text.includes('mix(') ? 'mixed' : 'fitted';

  beforeEach(() => {
    compiled = [];
    passes = [];
    const gpu = {
      material: (text: string, uniforms: Record<string, IUniform>) => ({ text, uniforms }),
      beginCompile: ({ text }: { text: string }) => compiled.push(text),
      pass: (material: RawShaderMaterial, target: WebGLRenderTarget | null) => {
        const { text, uniforms } = material as unknown as {
          text: string;
          uniforms: Record<string, IUniform>;
        };
        const values = Object.fromEntries(Object.entries(uniforms).map(([name, { value }]) => [name, value]));
        passes.push({ text, uniforms: values, target });
      },
    };
    presenter = new Presenter(gpu as unknown as Gpu);
  });

  test('compiles all that it will ever need before the first picture', () => {
    expect(compiled).toHaveLength(3);
    presenter.draw(only(look(640, 360)), size);
    presenter.draw(only(look(320, 180)), size);
    presenter.draw(only(look(640, 360), { fade: 0.5 }), size);
    expect(compiled).toHaveLength(3);
    expect(new Set(passes.map(({ text }) => text)).size).toBe(3);
  });

  test('reads pixel for pixel only where sizes, shape and part are the same', () => {
    const lie = { aspect, mapping: wholePicture };
    presenter.draw(only(look(640, 360)), size, lie);
    expect(form()).toBe('exact');
    presenter.draw(only(look(320, 180)), size, lie);
    expect(form()).toBe('fitted');
    presenter.draw(only(look(640, 360)), size, { aspect: 1, mapping: wholePicture });
    expect(form()).toBe('fitted');
    presenter.draw(only(look(640, 360)), size, {
      aspect,
      mapping: { part: [0.5, 0, 0.5, 1], fit: 'stretch' },
    });
    expect(form()).toBe('fitted');
    expect(last().uniforms.part).toEqual([0.5, 0, 0.5, 1]);
  });

  test('mixes two pictures during a fade', () => {
    const second = look(640, 360, { brightness: 0.5 });
    presenter.draw(only(look(640, 360), { second, fade: 0.25 }), size);
    expect(form()).toBe('mixed');
    expect(last().uniforms).toMatchObject({ fade: 0.25, secondLook: [0, 0, 0, 0.5] });
    expect(last().uniforms.second).toBe(second.texture);
  });

  test('takes the level into how bright each picture is', () => {
    const first = look(640, 360, { background: [0.1, 0.2, 0.3, 1], brightness: 0.8 });
    presenter.draw(only(first, { level: 0.5 }), size);
    expect(last().uniforms.firstLook).toEqual([0.1, 0.2, 0.3, 0.4]);
    presenter.draw(only(first, { level: 0 }), size);
    expect(last().uniforms.firstLook).toEqual([0.1, 0.2, 0.3, 0]);
  });

  test('puts a picture of another shape between bars, or stretches it where nothing is said', () => {
    presenter.draw(only(look(640, 360)), { width: 360, height: 360 }, { aspect, mapping: wholePicture });
    expect(last().uniforms.span).toEqual([1, aspect]);
    presenter.draw(only(look(640, 360)), { width: 360, height: 360 });
    expect(last().uniforms.span).toEqual([1, 1]);
  });

  test('draws onto the canvas, or into a target', () => {
    const target = {} as WebGLRenderTarget;
    presenter.draw(only(look(16, 9)), { width: 16, height: 9 }, undefined, target);
    expect(last().target).toBe(target);
    presenter.draw(only(look(16, 9)), { width: 16, height: 9 });
    expect(last().target).toBeNull();
  });
});
