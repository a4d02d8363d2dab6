import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { By } from 'selenium-webdriver';
import { Sketch } from '../demo/sketch';
import { Desk, smallShow } from './desk';

jest.setTimeout(400000);
let desk: Desk;
let folder: string;

beforeAll(async () => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'pyrvel-space-'));
  desk = await Desk.open();
  const show = smallShow('Space');
  const s = new Sketch('s1', 'Only', [900, 0]);
  s.add('ball', 'Globe', [0, 0]);
  s.add('model', 'Thing', [0, 200], { file: '' });
  const body = s.add('body', 'Skin', [250, 0], { shading: 'flat' });
  const camera = s.add('camera', 'Camera', [250, 200]);
  const shot = s.add('shot', 'Shot', [500, 0]);
  s.wire(body, shot, 'props');
  s.wire(camera, shot, 'props');
  s.wire(shot, s.out, 'picture');
  show.scenes = [s.scene];
  await desk.openShow(show);
});
afterAll(async () => {
  await desk?.close();
  rmSync(folder, { recursive: true, force: true });
});

const count = async (css: string): Promise<number> => (await desk.driver.findElements(By.css(css))).length;
const whyButton = '//button[contains(., "Why dark?")]';
const value = (label: string): Promise<number> =>
  desk.text(`[data-testid="inspector"] [role="spinbutton"][aria-label="${label}"]`).then(parseFloat);

describe('space', () => {
  test('a dark picture says why, and leads to the node', async () => {
    const button = await desk.driver.wait(async () => {
      const [found] = await desk.driver.findElements(By.xpath(whyButton));
      return found ?? false;
    }, 30000);
    if (button) await button.click();
    const reasons = await desk.text('[aria-label="Why dark?"]');
    expect(reasons).toMatch(/Skin Nothing is wired into Shape/);
    await desk.click('[aria-label="Why dark?"] li button');
    const name = await desk.find('[aria-label="Name of the node"]');
    expect(await name.getAttribute('value')).toBe('Skin');
    // The node says it as well, as long as the question is open.
    expect(await desk.text('[data-testid="inspector"]')).toMatch(/Nothing is wired into Shape/);
  });

  test('a shape wired in is there at once, framed and in three-quarter view, and the question is gone', async () => {
    await desk.wire('Globe', 'Skin', 'shape');
    const seen = await desk.until(
      'the globe',
      () => desk.picture(),
      (p) => p.lit > 0.1,
    );
    expect(seen.lit).toBeLessThan(0.7);
    await desk.until(
      'the question to go',
      () => count('[aria-label="Why dark?"]'),
      (n) => n === 0,
    );
  });

  test('the camera turns by dragging over the monitor', async () => {
    await desk.choose('Camera');
    const before = await value('Orbit value');
    const pad = await desk.find('[data-testid="orbit"]');
    await desk.driver
      .actions({ async: true })
      .move({ origin: pad })
      .press()
      .move({ origin: pad, x: 60, y: 0, duration: 100 })
      .release()
      .perform();
    await desk.until(
      'another angle',
      () => value('Orbit value'),
      (now) => now < before - 5,
    );
  });

  test('a model from the disk is a shape, and a damaged one says what is wrong while the picture goes on', async () => {
    const give = async (name: string, content: string): Promise<void> => {
      const file = path.join(folder, name);
      writeFileSync(file, content);
      await (await desk.driver.findElement(By.css('[data-testid="file-input"]'))).sendKeys(file);
    };
    await desk.choose('Thing');
    await give('kite.obj', 'v 0 0 0\nv 1 0 0\nv 0 1 0\nv 0 0 1\nf 1 3 2\nf 1 2 4\nf 1 4 3\nf 2 3 4\n');
    await desk.until(
      'its points',
      () => desk.caption('Thing'),
      (t) => t.startsWith('4 points'),
    );
    await desk.until(
      'the note',
      () => desk.text('[data-testid="inspector"]'),
      (t) => t.includes('no normals'),
    );
    await desk.tidy();
    const wires = await desk.wires();
    await desk.wire('Thing', 'Skin', 'shape');
    await desk.until(
      'its wire in the place of the other',
      () => desk.wires(),
      (n) => n === wires,
    );
    await desk.until(
      'the model',
      () => desk.picture(),
      (p) => p.lit > 0.02,
    );
    await desk.choose('Thing');
    await give('torn.obj', 'v 0 0 0\nf 1 2 3\n');
    await desk.until(
      'the fault',
      () => desk.text('[data-testid="fault"]'),
      (t) => /Line 2 names 2/.test(t),
    );
    expect((await desk.picture()).lit).toBeGreaterThan(0.02);
  });

  test('a field shows a cut through itself on its card and on the bench', async () => {
    await desk.add('field ball', 'Field Ball');
    await desk.choose('Field Ball');
    for (const canvas of [
      '[data-node="Field Ball"] [data-testid="face"]',
      '[data-testid="bench-field"] canvas',
    ]) {
      const seen = await desk.until(
        'the cut',
        () => desk.picture(canvas),
        (p) => p.lit > 0.03 && p.red > p.blue + 10,
      );
      // Around it are rings, not a picture over all.
      expect(seen.lit).toBeLessThan(0.9);
    }
  });

  test('cards added beside the same one hide no other, and are in sight', async () => {
    const names = ['Noise', 'Noise 2', 'Noise 3', 'Noise 4', 'Noise 5'];
    for (const name of names) {
      await desk.choose('Camera');
      await desk.add('noise', name);
    }
    interface Box {
      left: number;
      top: number;
      right: number;
      bottom: number;
    }
    // All at once: the view may be on its way.
    const boxes = (): Promise<Record<string, Box>> =>
      desk.driver.executeScript(`
        const boxes = {};
        const patch = document.querySelector('[data-testid="patch"]');
        for (const card of patch.querySelectorAll('[data-node]'))
          boxes[card.dataset.node] = card.getBoundingClientRect().toJSON();
        return { ...boxes, patch: patch.getBoundingClientRect().toJSON() };`);
    const { patch, ...cards } = await desk.until(
      'the last card in sight',
      boxes,
      ({ patch: view, 'Noise 5': last }) => last.top >= view.top && last.bottom <= view.bottom,
    );
    expect(patch.bottom).toBeGreaterThan(patch.top);
    const all = Object.values(cards);
    expect(all.length).toBeGreaterThan(9);
    for (const [k, a] of all.entries())
      for (const b of all.slice(k + 1))
        expect(
          a.right <= b.left + 1 || b.right <= a.left + 1 || a.bottom <= b.top + 1 || b.bottom <= a.top + 1,
        ).toBe(true);
  });
});
