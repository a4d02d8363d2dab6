/** npm run screenshots: draws the pictures in docs/screenshots from the demo show, at 1280 x 800; all, or those that are named. */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { Desk } from '../test/desk';

const folder = path.resolve(import.meta.dirname, '../docs/screenshots');
const wanted = process.argv.slice(2);
const desk = await Desk.open({ unsigned: true });

/** What draws some of the pictures, unless others are asked for. */
async function part(names: readonly string[], draw: () => Promise<void>): Promise<void> {
  if (wanted.length === 0 || names.some((name) => wanted.includes(name))) await draw();
}

async function shot(name: string): Promise<void> {
  const png = await desk.driver.takeScreenshot();
  writeFileSync(path.join(folder, `${name}.png`), Buffer.from(png, 'base64'));
  console.log(`docs/screenshots/${name}.png`);
}

/** Waits until every card in sight shows its picture and the monitor is lit. */
async function drawn(): Promise<void> {
  await desk.until(
    'the monitor',
    () => desk.picture(),
    (p) => p.lit > 0.05,
  );
  await desk.until(
    'the cards, whose faces take turns',
    () =>
      desk.driver.executeScript<number>(
        `return Number(document.querySelector('[data-testid="live-layer"]')?.dataset.painted ?? 0)`,
      ),
    (times) => times > 12,
  );
}

const openScene = (name: string): Promise<void> => desk.click(`[data-scene="${name}"]`);

try {
  await desk.click('[data-show="Night Apiary"] button');
  await desk.find('[data-testid="patch"]');
  await desk.select('Work size', 'Half');
  await part(['build', 'help', 'control-sources', 'add'], async () => {
    await drawn();
    await shot('build');
    await desk.press(Key.F1);
    await (await desk.find('[data-testid="help"] input')).sendKeys('kaleidoscope');
    await desk.until(
      'the example',
      () => desk.picture('[data-testid="kind-help"] canvas'),
      (p) => p.lit > 0.02,
    );
    await shot('help');
    await desk.press(Key.ESCAPE);
    await desk.choose('Swarms');
    await desk.click('[aria-label="Source of Size"]');
    await desk.find('[data-part="size"] [data-testid="bead"]');
    await shot('control-sources');
    await desk.chooseNothing();
    await desk.press('/');
    const search = await desk.find('[cmdk-input]');
    await search.sendKeys('glow');
    await desk.find('[cmdk-item]');
    await desk.until(
      'the example',
      () => desk.picture('[data-testid="kind-help"] canvas'),
      (p) => p.lit > 0.02,
    );
    await desk.until(
      'the bench',
      () => desk.picture('[data-testid="bench-picture"] canvas'),
      (p) => p.lit > 0.05,
    );
    await shot('add');
    await search.sendKeys(Key.ESCAPE);
  });
  await part(['handles'], async () => {
    await openScene('Lantern Row');
    await drawn();
    await desk.choose('Wicks');
    await desk.click('[aria-label="Safe areas"]');
    await desk.find('[data-handle="to"]');
    await drawn();
    await shot('handles');
    await desk.click('[aria-label="Safe areas"]');
  });
  await part(['code'], async () => {
    await openScene('Frost Lattice');
    await drawn();
    await desk.add('glsl', 'Shader');
    await desk.click('[data-part="code"] button');
    await (await desk.find('[data-testid="code"] .cm-content')).sendKeys(Key.chord(Key.CONTROL, Key.END));
    await drawn();
    await shot('code');
    await desk.chord(Key.CONTROL, 'z');
    await desk.click('[data-testid="bench"] [role="tab"]:nth-child(1)');
  });
  await part(['modules'], async () => {
    await openScene('Queen Pulse');
    await drawn();
    await desk.choose('Comb Ring');
    for (const name of ['Comb Line', 'Beads', 'Pollen', 'One Life', 'Six Lives'])
      await desk.driver
        .actions()
        .keyDown(Key.SHIFT)
        .click(await desk.find(`[data-node="${name}"] .truncate`))
        .keyUp(Key.SHIFT)
        .perform();
    await desk.chord(Key.CONTROL, 'g');
    await desk.fill('Name of the module', 'Comb and Pollen');
    await desk.driver.actions().keyDown(Key.ALT).sendKeys(Key.ARROW_DOWN).keyUp(Key.ALT).perform();
    await desk.find('[data-testid="module-inspector"]');
    await desk.choose('Comb Ring');
    await desk.click('[aria-label="Bring Size out"]');
    await desk.chooseNothing();
    await desk.click('[aria-label="More of Size"]');
    await drawn();
    await shot('modules');
    await desk.driver.actions().keyDown(Key.ALT).sendKeys(Key.ARROW_UP).keyUp(Key.ALT).perform();
  });
  await part(['variations'], async () => {
    await openScene('Two Bees');
    await drawn();
    await desk.driver.actions().keyDown(Key.ALT).sendKeys('v').keyUp(Key.ALT).perform();
    for (let k = 1; k <= 9; k++)
      await desk.until(
        `variation ${k}`,
        () => desk.picture(`[aria-label="Variation ${k}"] canvas`),
        (p) => p.lit > 0.01,
      );
    await shot('variations');
    await desk.press(Key.ESCAPE);
  });
  await part(['starts'], async () => {
    await desk.driver.actions().keyDown(Key.ALT).sendKeys('n').keyUp(Key.ALT).perform();
    for (const name of ['One Noise', 'Kaleidoscope', 'A Swarm', 'A Landscape', 'Sound', 'A Wall with Sound'])
      await desk.until(
        name,
        () => desk.picture(`[aria-label="Picture of ${name}"] canvas`),
        (p) => p.lit > 0.01,
      );
    await shot('starts');
    await desk.press(Key.ESCAPE);
  });
  await part(['inputs'], async () => {
    await desk.click('[aria-label="Views"] [href="/inputs"]');
    await desk.find('[data-testid="inputs"]');
    for (const fader of [41, 42, 44, 47]) await desk.click(`[data-fader="${fader}"]`);
    for (const [dial, way] of [
      [22, Key.PAGE_UP],
      [25, Key.PAGE_UP],
    ] as const)
      await (await desk.find(`[data-dial="${dial}"]`)).sendKeys(...Array<string>(6).fill(way));
    await desk.click('[data-source="OSC"] .btn');
    await desk.find('[data-osc]');
    await desk.until(
      'the tempo',
      () => desk.text('[data-testid="heard-tempo"]'),
      (t) => parseFloat(t) > 0,
    );
    await shot('inputs');
  });
  await part(['play'], async () => {
    await desk.click('[aria-label="Views"] [href="/play"]');
    await desk.click('[data-cue="Slats"]');
    const program = (): Promise<string> => desk.text('[data-testid="program-name"]');
    await desk.until('the cue', program, (name) => name === 'Shade Slats');
    await desk.click('[data-scene-button="Smoke Frames"] .tool');
    // Those in sight, one after the other as they come.
    for (const tile of (await desk.driver.findElements(By.css('[data-scene-button]'))).slice(0, 12))
      await desk.driver.wait(async () => (await tile.findElements(By.css('img'))).length, 60000);
    for (const slot of await desk.driver.findElements(By.css('[data-snapshot]')))
      await desk.driver.wait(async () => (await slot.findElements(By.css('img'))).length, 60000);
    await desk.until(
      'the next scene',
      () => desk.picture('[aria-label="Next"] canvas'),
      (p) => p.lit > 0.05,
    );
    await shot('play');
  });
  await part(['warp', 'wall', 'led-wall', 'room'], async () => {
    await desk.click('[aria-label="Views"] [href="/wall"]');
    await desk.click('[data-output-row="Left pane"] button');
    await desk.click('[role="tablist"][aria-label="Plans"] [role="tab"]:nth-child(2)');
    await desk.until(
      'the pane',
      () => desk.picture('[aria-label="Picture of Left pane"] canvas'),
      (p) => p.lit > 0.05,
    );
    await shot('warp');
    // Lines lie over the canvas, so that it never looks dark: it has its picture about as soon as the pane had.
    await desk.click('[role="tablist"][aria-label="Plans"] [role="tab"]:first-child');
    await desk.until(
      'the canvas',
      () => desk.seenAt('[aria-label="Program"]'),
      (p) => p.lit > 0.2,
    );
    await shot('wall');
    await desk.click('[role="tablist"][aria-label="Plans"] [role="tab"]:nth-child(2)');
    await desk.click('[data-output-row="Comb"] button');
    await desk.find('[data-tile]');
    await shot('led-wall');
    await desk.click('[role="tablist"][aria-label="Plans"] [role="tab"]:nth-child(3)');
    await desk.driver
      .actions({ async: true })
      .doubleClick(await desk.find('[aria-label="Room"]'))
      .perform();
    await desk.until(
      'pixels that arrived',
      () => desk.text('[data-testid="room-inspector"]'),
      (text) => /Right bench\s+[1-9]\d/.test(text),
    );
    await desk.until(
      'the room',
      () => desk.seenAt('[data-testid="room"]'),
      (p) => p.lit > 0.08,
    );
    await shot('room');
  });
  await part(['shows'], async () => {
    await desk.click('[aria-label="Views"] [href="/shows"]');
    await desk.find('[data-show="Night Apiary"] img');
    await shot('shows');
  });
  await part(['record'], async () => {
    await desk.click('[aria-label="Views"] [href="/record"]');
    const form = 'form[aria-label="Export"]';
    await desk.select('Scene', 'Shade Slats', form);
    await desk.type('Frames a second', '24', form);
    await desk.driver.executeScript(
      `for (const box of document.querySelectorAll('form input[type="checkbox"]'))
       if (box.checked && box.parentElement.textContent.includes('Ask where')) box.click();`,
    );
    await desk.click(`${form} button[type="submit"]`);
    await desk.find('[data-job="Shade Slats"] canvas');
    await shot('record');
  });
  await part(['preflight'], async () => {
    await desk.click('[aria-label="Views"] [href="/preflight"]');
    await desk.find('[aria-label="Look at Queen Pulse"]');
    // A few scenes at a small size say what it is like; all of them take minutes where the processor draws.
    await desk.click('main aside .toggle');
    await desk.driver.executeScript(
      `for (const box of document.querySelectorAll('input[aria-label^="Look at"]'))
       if (!/Shade Slats|Queen Pulse/.test(box.ariaLabel)) box.click();`,
    );
    await desk.click('main aside .btn-primary');
    await desk.until(
      'the end of it',
      async () => (await desk.driver.findElements(By.css('main aside progress'))).length,
      (count) => count === 0,
    );
    await desk.find('.recharts-line-curve');
    await shot('preflight');
  });
  await part(['machines'], async () => {
    await desk.click('[aria-label="Views"] [href="/machines"]');
    await desk.click('[aria-label="Network"] [role="switch"]');
    const code = await desk.text('[data-code="desk"]');
    const remote = await desk.text('[data-testid="remote-address"]');
    const main = await desk.driver.getWindowHandle();
    for (const name of ['Gable left', 'Gable right']) {
      await desk.driver.switchTo().newWindow('window');
      await desk.driver.manage().window().setRect({ width: 320, height: 260 });
      await desk.driver.get(`${desk.address}/player?name=${encodeURIComponent(name)}`);
    }
    await desk.driver.switchTo().newWindow('window');
    await desk.driver.get(remote);
    await (await desk.find('input[inputmode="numeric"]')).sendKeys(code);
    const name = await desk.find('input[maxlength="40"]');
    await name.clear();
    await name.sendKeys('Tablet at the mixing desk', Key.ENTER);
    await desk.find('[data-testid="remote-program"]');
    await desk.driver.switchTo().window(main);
    await desk.find('[data-machine="Tablet at the mixing desk"]');
    for (const [player, screen] of [
      ['Gable left', 'Left pane'],
      ['Gable right', 'Right pane'],
    ])
      await desk.select(`What ${player} shows`, screen, '[aria-label="Machines"]');
    await desk.until(
      'all clocks measured',
      () => desk.driver.findElements(By.css('[data-machine] .text-success')),
      (good) => good.length === 4,
    );
    await desk.until(
      'what both players show',
      () => desk.driver.findElements(By.css('[data-machine] img[alt$="shows now"]')),
      (pictures) => pictures.length === 2,
    );
    await shot('machines');
  });
} finally {
  await desk.close();
}
