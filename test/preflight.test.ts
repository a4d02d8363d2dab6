import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { Options } from '../bin/arguments';
import { preflight } from '../bin/preflight';
import { Sketch } from '../demo/sketch';
import type { Show } from '../src/core/document/types';
import type { PreflightReport } from '../src/core/preflight/report';
import { addCue, cueOf } from '../src/core/show/edit-desk';
import { Desk, smallShow } from './desk';

jest.setTimeout(400000);

/** Scenes of a second each: one that stands still, one that flashes six times, one that drifts though its loop is locked. */
function nightShow(): Show {
  const show = smallShow('Doors');
  show.canvas.fps = 30;
  const scene = (name: string, formula: string | null) => {
    const s = new Sketch(`s${name}`, name, [400, 0]);
    const light = s.add('fill', 'Light', [0, 0], { colour: [0.5, 0.5, 0.5, 1] });
    const levels = s.add('levels', 'Levels', [200, 0]);
    s.wire(light, levels, 'picture');
    s.wire(levels, s.out, 'picture');
    if (formula) s.formula(levels, 'brightness', formula);
    s.scene.loop = { length: 1, unit: 'seconds', lock: name === 'Dawn' };
    return s.scene;
  };
  show.scenes = [
    scene('Calm', null),
    scene('Strobe', 'fract(time * 6) < 0.5 ? 0.45 : -0.45'),
    scene('Dawn', 'time * 0.2'),
  ];
  for (const { id } of [show.scenes[0], show.scenes[2]]) {
    const cue = cueOf(show, addCue(show, show.cues.at(-1)?.id ?? null, id));
    cue.seconds = 0.5;
  }
  return show;
}

describe('the check before doors', () => {
  const said: string[] = [];
  const kept: [string, string][] = [];
  let fails: boolean;
  beforeAll(async () => {
    fails = await preflight(
      nightShow(),
      new Map(),
      Options.of({ cost: 'yes', report: 'out.json' }),
      (line) => said.push(line),
      (name, text) => kept.push([name, text]),
    );
  });
  // What is too slow here says how busy this machine is, and nothing of the scene.
  const of = (name: string): string[] =>
    said.filter((line) => line.includes(name) && !line.includes('Too slow for this machine'));

  test('finds nothing in a scene that stands still', () => {
    expect(said.some((line) => line.includes('scenes[0] Calm'))).toBe(true);
    expect(of('Calm').filter((line) => line !== 'fine: scenes[0] Calm')).toEqual([]);
  });
  test('finds flashes, and fails by them', () => {
    expect(of('Strobe')).toHaveLength(1);
    expect(of('Strobe')[0]).toMatch(
      /^error: scenes\[1\] Strobe: More than three flashes in a second: 1[12] /,
    );
    expect(fails).toBe(true);
  });
  test('finds a locked loop that does not close', () => {
    expect(of('Dawn')).toHaveLength(1);
    expect(of('Dawn')[0]).toMatch(
      /^warning: scenes\[2\] Dawn: The loop of 1 s does not close: .* 51 at most/,
    );
  });
  test('the running order is looked at with its transitions', () =>
    expect(said.some((line) => line.includes('cues'))).toBe(true));
  test('keeps a report with what was measured, costs included', () => {
    const [[name, text]] = kept;
    expect(name).toBe('out.json');
    const { subjects } = JSON.parse(text) as PreflightReport;
    expect(subjects.map(({ subject }) => subject.name)).toEqual(['Calm', 'Strobe', 'Dawn', 'Running order']);
    const { measure, cost } = subjects[1];
    expect(measure!.seconds).toBe(1);
    expect(Math.max(...measure!.strip.general)).toBe(measure!.general.most);
    expect(cost).toMatchObject({ size: [320, 180], frames: 12, holds: expect.any(Number) });
    expect(cost!.worst).toBeGreaterThanOrEqual(cost!.median);
    // Two nodes, one pass: what is joined into a shader costs with that.
    expect(cost!.nodes.length).toBeGreaterThan(0);
    expect(cost!.bytes).toBeGreaterThan(0);
  });
  test('of one scene alone, and without what fails, it passes', async () => {
    const alone: string[] = [];
    const options = Options.of({ scene: 'Calm' });
    expect(await preflight(nightShow(), new Map(), options, (line) => alone.push(line))).toBe(false);
    expect(alone).toEqual(['fine: scenes[0] Calm']);
  });
  test('a file that the show names and nobody brought fails, and so does code that cannot be drawn', async () => {
    const show = nightShow();
    show.scenes = [show.scenes[0]];
    show.cues = [];
    show.files['own-1'] = { name: 'crest.png', type: 'image/png', bytes: 10 };
    show.inputs.sound.file = 'own-1';
    const s = new Sketch('broken', 'Broken', [400, 0]);
    s.wire(
      s.add('shader', 'Own', [0, 0], { code: '/* {} */\nvec4 paint(vec2 place) { return nothing; }' }),
      s.out,
      'picture',
    );
    show.scenes.push(s.scene);
    const lines: string[] = [];
    expect(await preflight(show, new Map(), Options.of({}), (line) => lines.push(line))).toBe(true);
    expect(lines[0]).toMatch(/^error: files\.own-1: crest\.png is missing/);
    expect(lines.find((line) => line.includes('Broken'))).toMatch(/cannot be drawn\. .*Own: .*nothing/);
  });
});

describe('the view', () => {
  let desk: Desk;
  beforeAll(async () => {
    desk = await Desk.open({ devices: true });
    await desk.openShow(nightShow());
    await desk.driver.get(`${desk.address}/preflight`);
  });
  afterAll(() => desk?.close());
  const press = (name: string): Promise<unknown> =>
    desk.until(
      `the button ${name}`,
      () =>
        desk.driver.executeScript<boolean>(
          `const button = [...document.querySelectorAll('main button')].find((e) => e.textContent.trim() === arguments[0]);
           button?.click();
           return button !== undefined;`,
          name,
        ),
      (isThere) => isThere,
    );
  const findings = (): Promise<string> => desk.text('[data-testid="findings"]');
  const verdict = (): Promise<string> => desk.text('[aria-label="Findings"] h2');

  test('checks the show with its progress, and says what stands against the stage', async () => {
    await press('Check the show');
    await desk.find('progress[aria-label="Progress of Preflight"]');
    await desk.until('the end', verdict, (text) => /^1 must not go on stage/.test(text));
    await desk.until(
      'no more progress',
      async () =>
        (await desk.driver.findElements({ css: 'progress[aria-label="Progress of Preflight"]' })).length,
      (count) => count === 0,
    );
    expect(await findings()).toMatch(/^Strobe More than three flashes in a second/);
    expect(await findings()).toMatch(/Dawn The loop of 1 s does not close/);
  });

  test('shows the time line of a scene with what is allowed, and what a frame costs', async () => {
    await press('Strobe');
    const figures = '[aria-label="Figures of Strobe"]';
    await desk.find(`${figures} .recharts-line-curve`);
    await desk.find(`${figures} .recharts-reference-line`);
    expect(await desk.text(figures)).toMatch(/320 x 180[^]*Headroom/);
  });

  test('only what is chosen is checked again', async () => {
    const left = ['Strobe', 'Dawn', 'Running order'];
    for (const name of left) await desk.click(`[aria-label="Look at ${name}"]`);
    await press('Check the show');
    await desk.until(
      'only the calm one',
      () => desk.text('[aria-label="Checks"]'),
      () => true,
    );
    // What a frame costs is a matter of the machine.
    await desk.find(
      '[aria-label="Checks"] li:first-child :is([aria-label="Fine"], [aria-label="Should be mended"], [aria-label="Worth knowing"])',
    );
    await desk.until('the end', verdict, (text) => !/must not go on stage/.test(text));
    expect(await findings()).not.toContain('Strobe');
    for (const name of left) await desk.click(`[aria-label="Look at ${name}"]`);
  });

  test('a report can be kept', async () => {
    await desk.driver.executeScript(
      `window.kept = []; const make = URL.createObjectURL; URL.createObjectURL = (blob) => { blob.text().then((t) => window.kept.push(t)); return make(blob); };`,
    );
    await press('Page');
    const [page] = await desk.until(
      'the page',
      () => desk.driver.executeScript<string[]>('return window.kept'),
      (all) => all.length > 0,
    );
    expect(page).toContain('<h1>Preflight of Doors</h1>');
  });

  test('what is on air is counted, and held within the limit where the show asks for it', async () => {
    const state = '[data-testid="flash-state"]';
    await desk.click('[aria-label="Views"] [href="/play"]');
    await desk.click('[data-scene-button="Strobe"] button');
    await desk.until(
      'more flashes than three',
      () => desk.text(state),
      (text) => /^([4-9]|1\d)(\.5)? of 3/.test(text),
    );
    await desk.click('[aria-label="Limit flashes"]');
    await desk.find('[data-testid="program-limited"]');
    await desk.find(`${state}[data-held="true"]`);
    expect(await desk.text(state)).toMatch(/^held back \d+ %/);
    // Another scene comes, and nothing is held any more.
    await desk.click('[data-scene-button="Calm"] button');
    await desk.find(`${state}[data-held="false"]`);
    await desk.click('[aria-label="Limit flashes"]');
    await desk.click('[aria-label="Views"] [href="/preflight"]');
  });

  test('a press leads to where it is mended', async () => {
    await press('Check the show');
    await desk.until('the finding', findings, (text) => text.includes('Dawn The loop'));
    await desk.click('[aria-label="Go to scenes[2] Dawn"]');
    await desk.find('[data-testid="patch"]');
    expect(
      await desk.driver.executeScript(
        `return document.querySelector('[data-scene="Dawn"] [aria-current], [data-scene="Dawn"][aria-current], [data-scene="Dawn"] [aria-selected="true"], [data-scene="Dawn"][aria-selected="true"]') !== null`,
      ),
    ).toBe(true);
  });
});
