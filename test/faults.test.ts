import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { Key } from 'selenium-webdriver';
import { Desk, movingShow } from './desk';

jest.setTimeout(400000);
let desk: Desk;
beforeAll(async () => {
  desk = await Desk.open({ plainPages: false });
  await desk.openShow(movingShow('Fault Test', { Amber: [1, 0.6, 0.1] }));
  await desk.moves();
});
afterAll(() => desk?.close());

const seconds = (): Promise<number> => desk.text('[data-testid="time"]').then(parseFloat);

/** What stands in for the monitor when the card is lost is about a second old: waits until it shows what is seen now. Gives the time of the show. */
async function standInIsNew(): Promise<number> {
  const before = await seconds();
  return desk.until('seconds of the show', seconds, (now) => now > before + 2);
}

describe('a slip of the finger', () => {
  test('a broken formula says where, and the last good values stay', async () => {
    await desk.choose('Light');
    await desk.click('[aria-label="Source of Phase"]');
    const field = await desk.find('[data-sources="phase"] [aria-label="Formula"]');
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), 'time * (0.7');
    const message = await desk.until(
      'the message',
      () => desk.text('[data-testid="fault"]'),
      (text) => text.includes('phase'),
    );
    expect(message).toMatch(/at \d+/);
    await desk.find('[data-node="Light"] [role="img"][aria-label*="phase"]');
    expect((await desk.picture()).lit).toBeGreaterThan(0.5);
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), 'time * 0.7');
    await desk.until(
      'the fault gone',
      async () => (await desk.driver.findElements({ css: '[data-testid="fault"]' })).length,
      (n) => n === 0,
    );
    await desk.moves();
  });

  test('a formula that is part of a shader does the same, and works when it is right', async () => {
    await desk.choose('Levels');
    const field = await desk.find('[data-part="curve"] [aria-label="Curve"]');
    await desk.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', field);
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), 'v * nothing');
    await desk.until(
      'the message',
      () => desk.text('[data-testid="fault"]'),
      (t) => t.includes('nothing'),
    );
    await desk.moves();
    const before = await desk.picture();
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), 'v * 0.1');
    await desk.until(
      'a darker picture',
      () => desk.picture(),
      (p) => p.mean < before.mean * 0.5,
    );
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), 'v');
    await desk.until(
      'the picture as before',
      () => desk.picture(),
      (p) => p.mean > before.mean * 0.6,
    );
  });
});

describe('faults of the machine', () => {
  beforeAll(async () => {
    await desk.chooseNothing();
    await desk.find('[title^="Takes the graphics card away"]');
  });

  test('a lost graphics context comes back with the picture', async () => {
    const before = await standInIsNew();
    await desk.click('[title^="Takes the graphics card away"]');
    await desk.notice('warning', 'The last picture stays');
    expect((await desk.picture()).lit).toBeGreaterThan(0.5);
    await desk.notice('info', 'graphics card is back');
    await desk.moves();
    expect(await seconds()).toBeGreaterThan(before);
  });

  test('an engine that died is replaced by one that goes on where it was', async () => {
    const before = await seconds();
    await desk.click('[title^="Stops the engine"]');
    await desk.notice('warning', 'being started again');
    await desk.notice('info', 'engine is back');
    await desk.moves();
    expect(await seconds()).toBeGreaterThanOrEqual(before);
  });

  test('a rehearsal throws all of them in, and the stage stays lit through each', async () => {
    await desk.driver.get(`${desk.address}/preflight`);
    await desk.until(
      'the rehearsal',
      () =>
        desk.driver.executeScript<boolean>(
          `const button = [...document.querySelectorAll('main button')].find((e) => e.textContent.trim() === 'Rehearse faults' && !e.disabled);
           button?.click();
           return button !== undefined;`,
        ),
      (isThere) => isThere,
    );
    await desk.find('[aria-label="Stage of the rehearsal"] canvas');
    const marks = (): Promise<(string | null)[]> =>
      desk.driver.executeScript(
        `return [...document.querySelectorAll('[data-fault] td:first-child [aria-label]')].map((e) => e.getAttribute('aria-label'))`,
      );
    // Each fault takes a few seconds of the evening.
    await desk.until(
      'most of them',
      marks,
      (all) => all[5] === 'Held' || all[5] === 'Stood still for too long',
    );
    await desk.until(
      'the last fault',
      marks,
      (all) => all.at(-1) === 'Held' || all.at(-1) === 'Stood still for too long',
    );
    const all = await marks();
    expect(all).toHaveLength(8);
    expect(all).not.toContain('Went dark');
    // No files and no strings in this show.
    expect(all.filter((mark) => mark === 'Not rehearsed')).toHaveLength(2);
    await desk.notice('error', 'could not be saved');
  });

  test('the process that draws dies with all that was drawn: the picture stays, and moves again', async () => {
    await desk.driver.get(`${desk.address}/build`);
    await desk.moves();
    await standInIsNew();
    await desk.killDrawing();
    const killed = performance.now();
    await desk.notice('warning', 'The last picture stays');
    const first = await desk.picture();
    expect(first.lit).toBeGreaterThan(0.5);
    const next = await desk.until(
      'movement',
      () => desk.picture(),
      ({ lit, png }) => {
        expect(lit).toBeGreaterThan(0.5);
        return png !== first.png;
      },
    );
    console.log(`moves again ${((performance.now() - killed) / 1000).toFixed(1)} s after it died`);
    expect(next.red).toBeGreaterThan(next.blue);
    await desk.moves();
  });
});
