import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { Key } from 'selenium-webdriver';
import { Sketch } from '../demo/sketch';
import { Desk, smallShow } from './desk';

jest.setTimeout(400000);
let desk: Desk;

/** Where the cards lie, far from each other. */
const places = { Amber: [0, 100], Blue: [400, 250], Wave: [0, 400], Globe: [800, 0] } as const;

beforeAll(async () => {
  // What visitors without a graphics card get.
  desk = await Desk.open({ renderer: 'swiftshader' });
  const show = smallShow('Layer Test');
  const s = new Sketch('s1', 'Only', [800, 250]);
  const amber = s.add('fill', 'Amber', [...places.Amber], { colour: [1, 0.6, 0.1, 1] });
  const blue = s.add('blend', 'Blue', [...places.Blue], { mode: 'multiply' });
  const fill = s.add('fill', 'Tint', [0, 250], { colour: [0.2, 0.4, 1, 1] });
  s.add('oscillator', 'Wave', [...places.Wave], { rate: 1 });
  s.add('ball', 'Globe', [...places.Globe], { form: 'even', points: 50 });
  s.wire(amber, blue, 'picture');
  s.wire(fill, blue, 'over');
  s.wire(blue, s.out, 'picture');
  show.scenes = [s.scene];
  await desk.openShow(show);
});
afterAll(() => desk?.close());

/** Mean colours of faces that are full of one colour each: Amber, and Amber times the tint. */
const wanted = { Amber: [255, 153, 26], Blue: [51, 61, 26] } as const;

/** How far the mean colours of the faces are from what they should be, of 255: near only if each lies where its card is. */
async function apart(nodes: readonly (keyof typeof wanted)[]): Promise<number[]> {
  const all: number[] = [];
  for (const node of nodes) {
    const { red, green, blue } = await desk.seenAt(`[data-node="${node}"] [data-testid="face"]`);
    all.push(...[red, green, blue].map((v, k) => Math.round(Math.abs(v - wanted[node][k]))));
  }
  return all;
}

const allThere = (nodes: readonly (keyof typeof wanted)[] = ['Amber', 'Blue']): Promise<unknown> =>
  desk.until(
    `${nodes.join(' and ')} in their places`,
    () => apart(nodes),
    (by) => by.every((v) => v < 6),
  );

/** Turns the wheel over the ground of the patch, which zooms. */
async function zoom(by: number): Promise<void> {
  await desk.driver.executeScript(
    `const ground = document.querySelector('.react-flow__pane');
     const { left, top, width, height } = ground.getBoundingClientRect();
     ground.dispatchEvent(new WheelEvent('wheel', { bubbles: true, cancelable: true, deltaY: arguments[0], clientX: left + width / 2, clientY: top + height / 2 }));`,
    by,
  );
}

async function pan(x: number, y: number): Promise<void> {
  const ground = await desk.find('.react-flow__pane');
  const { width, height } = await ground.getRect();
  const corner = { origin: ground, x: Math.round(width / 2 - 20), y: Math.round(height / 2 - 20) };
  await desk.driver
    .actions({ async: true })
    .move(corner)
    .press()
    .move({ ...corner, x: corner.x + x, y: corner.y + y, duration: 100 })
    .release()
    .perform();
}

const rectOf = async (node: string) => (await desk.find(`[data-node="${node}"]`)).getRect();

/** Drags a card by its name. */
async function dragCard(node: string, x: number, y: number): Promise<void> {
  const name = await desk.find(`[data-node="${node}"] .truncate`);
  await desk.driver
    .actions({ async: true })
    .move({ origin: name })
    .press()
    .move({ origin: name, x: 5, y: 5, duration: 60 })
    .move({ origin: name, x: Math.round(x), y: Math.round(y), duration: 120 })
    .release()
    .perform();
}

describe('the live layer', () => {
  test('shows each picture on its card, and numbers on the others', async () => {
    await allThere();
    for (const node of ['Wave', 'Globe'])
      await desk.until(
        `something on ${node}`,
        () => desk.seenAt(`[data-node="${node}"] [data-testid="numbers"]`),
        (p) => p.lit > 0.004,
      );
    await desk.until(
      'the wave to move',
      () => desk.caption('Wave'),
      (t) => /^-?[\d.]+$/.test(t),
    );
    expect(await desk.caption('Globe')).toBe('50 points');
  });

  test('follows when the patch is zoomed and moved', async () => {
    // The one in the middle stays in sight at every scale.
    for (const by of [-120, 240, 120]) {
      await zoom(by);
      await allThere(['Blue']);
    }
    await zoom(-300);
    await pan(50, 40);
    await allThere(['Blue']);
  });

  test('follows a card that is moved by hand, and back when that is undone', async () => {
    await desk.click('[aria-label="Whole patch"]');
    await desk.patchStands();
    const before = await rectOf('Amber');
    await dragCard('Amber', 60, 40);
    await allThere();
    expect((await rectOf('Amber')).x).toBeGreaterThan(before.x + 20);
    await desk.chord(Key.CONTROL, 'z');
    await desk.until(
      'the card where it was',
      () => rectOf('Amber'),
      (r) => Math.abs(r.x - before.x) < 2,
    );
    await allThere();
  });

  test('the face of a card that lies over another is not covered by it', async () => {
    const [over, under] = [await rectOf('Amber'), await rectOf('Tint')];
    await dragCard('Amber', 30 + under.x - over.x, 20 + under.y - over.y);
    // Chosen cards lie in front.
    await desk.choose('Amber');
    await allThere();
    const cut = await desk.driver.executeScript<number>(
      `return [...document.querySelectorAll('.react-flow__node')].filter((e) => e.style.clipPath.startsWith('path')).length`,
    );
    expect(cut).toBe(1);
    await desk.chord(Key.CONTROL, 'z');
  });

  test('a wire has the mean colour of its picture', async () => {
    await desk.chooseNothing();
    const [red, blue] = await desk.until(
      'an amber wire',
      async () => {
        const path = await desk.find('[data-wire][data-carries="image"] path');
        const { red: r, blue: b } = await desk.seenAt('[data-wire][data-carries="image"]');
        return path ? [r, b] : [0, 0];
      },
      ([r, b]) => r > b + 1,
    );
    expect(red).toBeGreaterThan(blue);
  });

  test('is there again after the graphics context was lost', async () => {
    await desk.chooseNothing();
    await (await desk.driver.findElement({ xpath: '//button[contains(., "Lose the graphics")]' })).click();
    await desk.notice('info', 'is back');
    await allThere();
  });
});
