import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import type { Driver } from 'selenium-webdriver/chrome.js';
import { farmWorker } from '../bin/farm';
import type { Show } from '../src/core/document/types';
import { Desk, movingShow } from './desk';
import { frameOf, probe } from './films';
import { startRedis } from './redis';

jest.setTimeout(400000);
let desk: Desk;
let folder: string;
let redis: Awaited<ReturnType<typeof startRedis>>;

const form = 'form[aria-label="Export"]';
const frames = 90;

/** A show whose loop is a video of three pieces. */
function recordedShow(): Show {
  const show = movingShow('Recorded', { Amber: [1, 0.6, 0.1], Blue: [0.1, 0.3, 1] });
  show.canvas = { width: 64, height: 36, fps: 20 };
  show.inputs.sound.from = 'loop';
  const [amber, blue] = show.scenes;
  amber.loop = { length: frames, unit: 'frames', lock: false };
  blue.loop = { length: 8, unit: 'frames', lock: false };
  return show;
}

beforeAll(async () => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'pyrvel-record-'));
  redis = await startRedis(folder);
  desk = await Desk.open({ redis: redis.url });
  await (desk.driver as Driver).setDownloadPath(folder);
  await desk.openShow(recordedShow());
});
afterAll(async () => {
  await desk.close();
  redis.stop();
  rmSync(folder, { recursive: true, force: true });
});

const stateOf = (name: string): Promise<{ state: string; text: string } | null> =>
  desk.driver.executeScript(
    `const row = document.querySelector('[data-job="' + arguments[0] + '"]');
     return row && { state: row.dataset.state, text: row.innerText };`,
    name,
  );
const reached = (name: string, state: string): Promise<{ state: string; text: string } | null> =>
  desk.until(
    `${name} to be ${state}`,
    () => stateOf(name),
    (job) => job?.state === state,
  );
const framesDone = (text: string | undefined): number =>
  Number(/(\d+) of \d+ frames/.exec(text ?? '')?.[1] ?? 0);

/** Opens Record, and keeps what is made in the browser: no window of the system can be worked here. */
async function openRecord(): Promise<void> {
  await desk.driver.get(`${desk.address}/record`);
  await desk.find(form);
  const asks = await desk.driver.executeScript<boolean>(
    `const box = [...document.querySelectorAll('${form} label')].find((one) => one.textContent.includes('Ask where')).querySelector('input');
     if (box.checked) box.click();
     return box.checked;`,
  );
  expect(asks).toBe(false);
}

const press = (text: string, inside = 'body'): Promise<void> =>
  desk.driver.executeScript(
    `const button = [...document.querySelectorAll(arguments[1] + ' button')].find((one) => one.textContent.trim() === arguments[0] && !one.disabled);
     if (!button) throw new Error('There is no button ' + arguments[0]);
     button.click();`,
    text,
    inside,
  );

/** The file that was saved last under a name. */
const saved = (name: string): Promise<string> =>
  desk.until(
    `the file ${name}`,
    () => Promise.resolve(path.join(folder, name)),
    (file) => existsSync(file) && !readdirSync(folder).some((one) => one.endsWith('.crdownload')),
  );

describe('an export', () => {
  test('goes on after a reload where it was, and through another view', async () => {
    await openRecord();
    await desk.fill('Name of the export', 'Loop', form);
    await press('Export', form);
    await desk.until(
      'a piece to be finished',
      () => stateOf('Loop'),
      (job) => framesDone(job?.text) > 45,
    );
    // Chromium sometimes loses a tab whose page goes while an encoder is at work: it rests while the page is left.
    await desk.click('button[aria-label="Pause Loop"]');
    await reached('Loop', 'paused');
    await desk.driver.get(`${desk.address}/play`);
    await desk.find('[data-scene-button]');
    await openRecord();
    await desk.click('button[aria-label="Go on with Loop"]');
    const after = await desk.until(
      'the export to go on',
      () => stateOf('Loop'),
      (job) => job?.state === 'running' || job?.state === 'done',
    );
    // A piece is forty frames long: what was finished is not drawn again.
    if (after?.state === 'running') expect(framesDone(after.text)).toBeGreaterThanOrEqual(40);
    const { text } = (await reached('Loop', 'done'))!;
    expect(text).toContain(`${frames} frames`);
    await press('Save', '[data-job="Loop"]');
    const file = await saved('Loop.webm');
    expect(probe(file).streams[0]).toMatchObject({
      codec_name: 'vp9',
      nb_read_frames: String(frames),
      r_frame_rate: '20/1',
    });
    // The scene is amber: red above green above blue.
    const [r, g, b] = [0, 1, 2].map((c) =>
      frameOf(file, 60)
        .filter((_, k) => k % 3 === c)
        .reduce((a, v) => a + v, 0),
    );
    expect(r).toBeGreaterThan(g);
    expect(g).toBeGreaterThan(b);
  });

  test('is paused, goes on, and can be taken back', async () => {
    await desk.fill('Name of the export', 'Paused', form);
    await press('Export', form);
    await desk.until(
      'frames',
      () => stateOf('Paused'),
      (job) => framesDone(job?.text) > 5,
    );
    await desk.click('button[aria-label="Pause Paused"]');
    await reached('Paused', 'paused');
    await desk.click('button[aria-label="Go on with Paused"]');
    await reached('Paused', 'running');
    await desk.click('button[aria-label="Cancel Paused"]');
    await desk.until(
      'it to be gone',
      () => stateOf('Paused'),
      (job) => job === null,
    );
  });

  test('of images is a zip of them', async () => {
    await desk.fill('Name of the export', 'Frames', form);
    await press('Images', form);
    await press('From – to', form);
    await desk.type('Last frame', '5', form);
    await press('Export', form);
    await reached('Frames', 'done');
    await press('Save', '[data-job="Frames"]');
    const names = readFileSync(await saved('Frames.zip'), 'latin1').match(/frame-\d{6}\.png/g)!;
    expect(new Set(names).size).toBe(6);
  });

  test('that cannot be says why, and cannot be begun', async () => {
    await press('Video', form);
    await desk.type('Width', '63', form);
    const alert = await desk.find(`${form} [role="alert"]`);
    expect(await desk.textOf(alert)).toMatch(/even numbers of pixels: 64 x/);
    expect(await (await desk.find(`${form} button[type="submit"]`)).isEnabled()).toBe(false);
    await desk.type('Width', '64', form);
  });
});

test('an export may be made by the workers of a farm, and a pause in another window is heard', async () => {
  await openRecord();
  await desk.until(
    'the farm to be offered',
    () => desk.text(form),
    (text) => /On the farm: 0 workers listen/.test(text),
  );
  await desk.driver.executeScript(
    `[...document.querySelectorAll('${form} label')].find((one) => one.textContent.includes('On the farm')).querySelector('input').click();`,
  );
  await desk.fill('Name of the export', 'Farmed', form);
  await press('Images', form);
  await press('From – to', form);
  await desk.type('Last frame', '5', form);
  await press('Export', form);
  await reached('Farmed', 'running');
  // As another window does it: it knows the database only.
  await desk.driver.executeAsyncScript(
    `const done = arguments[0];
     const opening = indexedDB.open('pyrvel');
     opening.onsuccess = () => {
       const jobs = opening.result.transaction('jobs', 'readwrite').objectStore('jobs');
       jobs.getAll().onsuccess = ({ target }) => {
         const job = target.result.find(({ spec }) => spec.name === 'Farmed');
         jobs.put({ ...job, state: 'paused' }).onsuccess = () => done();
       };
     };`,
  );
  await reached('Farmed', 'paused');
  await desk.click('button[aria-label="Go on with Farmed"]');
  const worker = await farmWorker(redis.url, undefined, () => undefined);
  try {
    await reached('Farmed', 'done');
  } finally {
    await worker.close();
  }
  await press('Save', '[data-job="Farmed"]');
  const names = readFileSync(await saved('Farmed.zip'), 'latin1').match(/frame-\d{6}\.png/g)!;
  expect(new Set(names).size).toBe(6);
  await desk.driver.executeScript(
    `[...document.querySelectorAll('${form} label')].find((one) => one.textContent.includes('On the farm')).querySelector('input').click();`,
  );
});

test('what is on air is recorded while it is played, with sound, and says what was left out', async () => {
  await press('Record the program');
  const output = '[aria-label="Recording"]';
  await desk.find(`nav ${output}`);
  await desk.until(
    'frames of the recording',
    async () => Number(/(\d+) frames/.exec(await desk.text(`output${output}`))?.[1] ?? 0),
    (count) => count > 30,
  );
  await press('End the recording');
  const name = await desk.until(
    'the recording in the list',
    () =>
      desk.driver.executeScript<string | null>(
        `return document.querySelector('[data-job^="Recorded 20"]')?.dataset.job ?? null`,
      ),
    (found) => found !== null,
  );
  const { text } = (await reached(name!, 'done'))!;
  expect(text).toMatch(/No frame was left out|frames were left out, since the stage needed the time/);
  await press('Save', `[data-job="${name}"]`);
  const file = await saved(`${name}.webm`);
  const { streams, format } = probe(file);
  expect(streams.map(({ codec_name }) => codec_name)).toEqual(['vp9', 'opus']);
  expect(Number(streams[0].nb_read_frames)).toBeGreaterThan(0);
  expect(Number(format.duration)).toBeGreaterThan(1.4);
});

describe('a recording that is cut off', () => {
  const recordedFrames = async (): Promise<number> =>
    Number(/(\d+) frames/.exec(await desk.text('output[aria-label="Recording"]'))?.[1] ?? 0);
  /** Frames of two pieces and a bit. */
  const twoPieces = 90;
  const isLong = (count: number): boolean => count > twoPieces;
  const nameOf = (): Promise<string> =>
    desk.driver.executeScript(`return document.querySelector('[data-state="recording"]').dataset.job`);
  /** What is saved of a recording: its seconds, and streams. */
  async function savedOf(name: string): Promise<{ seconds: number; codecs: string[] }> {
    await press('Save', `[data-job="${name}"]`);
    const { streams, format } = probe(await saved(`${name}.webm`));
    return { seconds: Number(format.duration), codecs: streams.map(({ codec_name }) => codec_name) };
  }

  test.each([
    ['engine', 'Stops the engine'],
    ['graphics card', 'Takes the graphics card away'],
  ])('goes on in a second file where the %s is lost, and the first is kept', async (_what, title) => {
    await openRecord();
    await press('Record the program');
    await desk.until('two pieces', recordedFrames, isLong);
    const first = await nameOf();
    await desk.view('build');
    await desk.click(`[title^="${title}"]`);
    await desk.notice('warning', 'It goes on in a second file');
    await desk.click('nav a[href="/record"]');
    await reached(first, 'done');
    const { seconds, codecs } = await savedOf(first);
    expect(seconds).toBeGreaterThanOrEqual(4);
    expect(codecs).toEqual(['vp9', 'opus']);
    expect(await nameOf()).not.toBe(first);
  });

  test('is finished when the page is there again, which sweeps up what nothing belongs to', async () => {
    await desk.until('two pieces of the second', recordedFrames, isLong);
    const second = await nameOf();
    const folders = (change = ''): Promise<string[]> =>
      desk.driver.executeAsyncScript(
        `const done = arguments[0];
         (async () => {
           const all = await (await navigator.storage.getDirectory()).getDirectoryHandle('exports');
           ${change}
           const names = [];
           for await (const name of all.keys()) names.push(name);
           return names;
         })().then(done, (error) => done([String(error)]));`,
      );
    const before = await folders(`await all.getDirectoryHandle('left-over', { create: true });`);
    expect(before).toContain('left-over');
    await openRecord();
    const { text } = (await reached(second, 'done'))!;
    expect(text).toContain('It was cut off');
    expect((await savedOf(second)).seconds).toBeGreaterThanOrEqual(4);
    expect(await desk.driver.findElements({ css: '[data-state="recording"]' })).toEqual([]);
    expect([...(await folders()), 'left-over'].sort()).toEqual(before.sort());
  });
});

describe('in Build', () => {
  const chosenName = (): Promise<string> =>
    desk.driver.executeScript(
      `return document.querySelector('[data-testid="inspector"] input[aria-label="Name of the node"]')?.value`,
    );
  test('a costly node is frozen into a clip that plays in its place, and thawed', async () => {
    await desk.view('build');
    await desk.click('[data-scene="Blue"]');
    await desk.choose('Light');
    const before = await desk.until(
      'the blue scene',
      () => desk.picture(),
      ({ red, blue }) => blue > 2 * red && blue > 30,
    );
    await press('Freeze', '[data-testid="inspector"]');
    await desk.find('[data-node="Light live"]');
    await desk.until('the frozen one to be chosen', chosenName, (name) => name === 'Light');
    await desk.until(
      'the clip to be seen as the gradient was',
      () => desk.picture(),
      ({ red, blue }) => blue > 30 && Math.abs(blue - before.blue) < 25 && red < 40,
    );
    await press('Thaw', '[data-testid="inspector"]');
    await desk.until('the node to be back', chosenName, (name) => name === 'Light');
    expect(
      await desk.driver.executeScript(`return document.querySelector('[data-node="Light live"]') === null`),
    ).toBe(true);
    // The same as images of floats.
    await desk.select('Freeze as', 'Images of floats');
    await press('Freeze', '[data-testid="inspector"]');
    await desk.find('[data-node="Light live"]');
    await desk.until(
      'the images to be seen as the gradient was',
      () => desk.picture(),
      ({ red, blue }) => blue > 30 && Math.abs(blue - before.blue) < 25 && red < 40,
    );
    await press('Thaw', '[data-testid="inspector"]');
  });

  test('a patch is saved as notes and as a drawing', async () => {
    await desk.choose('Scene Out');
    for (const [option, ending, held] of [
      ['Notes (Markdown)', 'md', '**Light** · Gradient'],
      ['Drawing (SVG)', 'svg', '<svg '],
    ]) {
      await desk.select('Save as', option);
      await press('Save', '[data-testid="inspector"]');
      expect(readFileSync(await saved(`Blue.${ending}`), 'utf8')).toContain(held);
    }
  });
});
