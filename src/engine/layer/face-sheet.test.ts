import { beforeEach, describe, expect, test } from '@jest/globals';
import type { WebGLRenderTarget } from 'three';
import type { Gpu } from '../gpu/gpu';
import type { ScenePlayer } from '../playback/scene-player';
import { FaceSheet } from './face-sheet';

/** The parts of a Gpu that a sheet uses; counts its targets. */
class FakeGpu {
  targets = 0;
  passes = 0;
  acquire = (width: number, height: number): WebGLRenderTarget => {
    this.targets++;
    return { width, height, texture: {}, viewport: { set: () => undefined } } as unknown as WebGLRenderTarget;
  };
  release = (): void => void this.targets--;
  clear = (): void => undefined;
  material = () => ({});
  pass = (): void => void this.passes++;
}

let fake: FakeGpu;
let sheet: FaceSheet;
let peeked: string[];
let ready: boolean;
/** Nodes that have a picture of their own; all others are part of another's shader. */
let stored: Set<string>;
let changed: boolean;

const player = {
  run: { runs: { get: () => ({ changed }) } },
  renderer: { isDrawn: (node: string) => stored.has(node) },
  peek: (node: string) => {
    peeked.push(node);
    return ready;
  },
} as unknown as ScenePlayer;

const nodes = (count: number): string[] => Array.from({ length: count }, (_, k) => `n${k}`);

beforeEach(() => {
  fake = new FakeGpu();
  sheet = new FaceSheet(fake as unknown as Gpu);
  [peeked, ready, stored, changed] = [[], true, new Set(), true];
});

describe('faces', () => {
  test('that are only copied are drawn at once; of the others a few take turns while the GPU is busy', () => {
    stored = new Set(['n0', 'n1', 'n2', 'n3', 'n4']);
    sheet.fit(nodes(12), 76, 43);
    sheet.refresh(player, true);
    expect(peeked.filter((node) => stored.has(node))).toHaveLength(5);
    expect(peeked).toHaveLength(8);
    for (let k = 0; k < 2; k++) sheet.refresh(player, true);
    expect(new Set(peeked).size).toBe(12);
    expect(sheet.isStale).toBe(false);
  });

  test('are all drawn where there is time, and again only when they changed', () => {
    sheet.fit(nodes(12), 76, 43);
    sheet.refresh(player, false);
    sheet.refresh(player, false);
    expect([peeked.length, sheet.count, fake.passes]).toEqual([12, 12, 1]);
    changed = false;
    sheet.note(player);
    expect(sheet.isStale).toBe(false);
    changed = true;
    sheet.note(player);
    sheet.refresh(player, false);
    expect(sheet.count).toBe(24);
  });

  test('have a place once they were drawn; until a shader is there they are tried again', () => {
    ready = false;
    sheet.fit(nodes(9), 76, 43);
    sheet.refresh(player, false);
    expect(sheet.cellOf('n8')).toBeNull();
    expect(sheet.isStale).toBe(true);
    ready = true;
    sheet.refresh(player, false);
    // The ninth begins the second of two rows; the upper edge comes first.
    expect(sheet.cellOf('n8')).toEqual([0, 1, 1 / 8, -0.5]);
    expect([sheet.indexOf('n8'), sheet.indexOf('gone')]).toEqual([8, null]);
  });

  test('of another size or of other nodes begin anew, and nothing is left over', () => {
    sheet.fit(nodes(3), 76, 43);
    sheet.fit(nodes(3), 76, 43);
    expect(fake.targets).toBe(2);
    sheet.refresh(player, false);
    sheet.fit(nodes(3), 152, 86);
    expect([fake.targets, sheet.cellOf('n0')]).toEqual([2, null]);
    sheet.fit(nodes(500), 10, 10);
    expect(sheet.indexOf('n200')).toBeNull();
  });
});
