import { beforeEach, describe, expect, test } from '@jest/globals';
import type { Texture, WebGLRenderTarget } from 'three';
import type { Bits, Gpu } from '../gpu/gpu';
import type { Shader } from '../shader/shader';
import { dropShaders, fitStored, freeStored, newStored, type Stored } from './stored';

interface FakeTarget {
  name: string;
  width: number;
  height: number;
  bits: Bits;
  depthBuffer: boolean;
  texture: { of: string };
}

/** A GPU that counts what is taken and given back. */
class FakeGpu {
  made = 0;
  held = new Set<FakeTarget>();
  copies: string[] = [];
  acquire(width: number, height: number, bits: Bits, depthBuffer = false): FakeTarget {
    const name = `t${++this.made}`;
    const target = { name, width, height, bits, depthBuffer, texture: { of: name } };
    this.held.add(target);
    return target;
  }
  release(target: FakeTarget): void {
    if (!this.held.delete(target)) throw new Error(`${target.name} was given back twice.`);
  }
  fits(target: FakeTarget, width: number, height: number, bits: Bits): boolean {
    return target.width === width && target.height === height && target.bits === bits;
  }
  copy(from: { of: string }, to: FakeTarget): void {
    this.copies.push(`${from.of} to ${to.name}`);
  }
}

describe('a stored picture', () => {
  let fake: FakeGpu;
  let gpu: Gpu;
  let stored: Stored;
  const fit = (width: number, height: number, moving = true, depth = false): void =>
    fitStored(gpu, stored, width, height, moving, depth);
  const name = (target: WebGLRenderTarget | null): string | undefined =>
    (target as unknown as FakeTarget | null)?.name;

  beforeEach(() => {
    fake = new FakeGpu();
    gpu = fake as unknown as Gpu;
    stored = newStored('16');
  });

  test('keeps its target while size and format stay', () => {
    fit(320, 180);
    fit(320, 180);
    expect(name(stored.target)).toBe('t1');
    expect(fake.made).toBe(1);
  });

  test('takes another where size, format or depth differ, and gives the old one back', () => {
    fit(320, 180);
    fit(640, 360);
    stored.bits = '32';
    fit(640, 360);
    fit(640, 360, true, true);
    expect(fake.made).toBe(4);
    expect(fake.held.size).toBe(1);
    expect(fake.copies).toEqual([]);
  });

  test('that is read as it was before exchanges two targets with each step', () => {
    stored.double = true;
    fit(320, 180);
    fit(320, 180);
    const [now, before] = [name(stored.target), name(stored.before)];
    expect(new Set([now, before])).toEqual(new Set(['t1', 't2']));
    fit(320, 180);
    expect([name(stored.target), name(stored.before)]).toEqual([before, now]);
    expect(fake.made).toBe(2);
  });

  test('stays where it is while time stands still', () => {
    stored.double = true;
    fit(320, 180);
    fit(320, 180);
    const before = name(stored.target);
    fit(320, 180, false);
    fit(320, 180, false);
    expect(name(stored.target)).toBe(before);
  });

  test('goes on at another size from what it held', () => {
    stored.double = true;
    fit(320, 180);
    fit(320, 180);
    const held = name(stored.target);
    fit(640, 360);
    expect(fake.copies).toEqual([`${held} to t3`]);
    // What was copied is what stood before this step.
    expect(name(stored.before)).toBe('t3');
    expect(fake.held.size).toBe(2);
  });

  test('lets go of the second target where nothing reads it any more', () => {
    stored.double = true;
    fit(320, 180);
    fit(320, 180);
    stored.double = false;
    fit(320, 180);
    expect(stored.before).toBeNull();
    expect(fake.held.size).toBe(1);
  });

  test('gives everything back when it is freed, shaders included, each once', () => {
    const disposed: string[] = [];
    const shader = (id: string): Shader =>
      ({ material: { dispose: () => disposed.push(id) } }) as unknown as Shader;
    const [kept, old, coming] = ['kept', 'old', 'coming'].map(shader);
    stored.shaders = [kept, old];
    stored.coming = { shaders: [kept, coming], key: '' };
    stored.double = true;
    stored.data = { dispose: () => disposed.push('data') } as unknown as Texture;
    fit(320, 180);
    fit(320, 180);
    freeStored(gpu, stored);
    expect(fake.held.size).toBe(0);
    expect(disposed.sort()).toEqual(['coming', 'data', 'kept', 'old']);
  });

  test('frees only shaders that are not kept', () => {
    const disposed: string[] = [];
    const [a, b] = ['a', 'b'].map(
      (id) => ({ material: { dispose: () => disposed.push(id) } }) as unknown as Shader,
    );
    dropShaders([a, b], [b]);
    expect(disposed).toEqual(['a']);
  });
});
