import { readFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { Desk, movingShow } from './desk';

jest.setTimeout(400000);
let desk: Desk;
beforeAll(async () => {
  desk = await Desk.open();
  await desk.openShow(movingShow('Late Set', { Amber: [1, 0.6, 0.1], Teal: [0.1, 0.8, 0.8] }));
  await desk.moves();
});
afterAll(() => desk?.close());

const isOn = async (label: string): Promise<boolean> =>
  (await (await desk.find(`[aria-label="${label}"]`)).getAttribute('aria-pressed')) === 'true';
const switched = (label: string, on: boolean): Promise<boolean> =>
  desk.until(
    `${label} ${on ? 'on' : 'off'}`,
    () => isOn(label),
    (now) => now === on,
  );
const seconds = (): Promise<number> => desk.text('[data-testid="time"]').then(parseFloat);
const count = async (selector: string): Promise<number> =>
  (await desk.driver.findElements(By.css(selector))).length;
const sceneButton = (scene: string, state: string): Promise<unknown> =>
  desk.find(`[data-scene-button="${scene}"][data-state="${state}"]`);

describe('the performance', () => {
  test('is reported: what one button does, every view shows', async () => {
    await desk.press(Key.F9);
    await switched('Blackout', true);
    await desk.view('play');
    await switched('Blackout', true);
    // What would be on air is still seen, under the word.
    expect(await desk.text('[data-testid="program-state"]')).toBe('BLACKOUT');
    await desk.until(
      'the program under it',
      () => desk.picture('[aria-label="Program"] canvas'),
      (p) => p.mean > 2,
    );
    await desk.press(Key.F9);
    await switched('Blackout', false);
    await desk.until(
      'the program',
      () => desk.picture('[aria-label="Program"] canvas'),
      (p) => p.lit > 0.3,
    );
  });

  test('survives a reload: blackout, freeze, what is on stage and next, time, and that it stands', async () => {
    await desk.click('[aria-label="Fade to Teal"]');
    await sceneButton('Teal', 'on');
    await desk.click('[data-scene-button="Amber"] button[aria-pressed]');
    await sceneButton('Amber', 'next');
    await desk.pause();
    await desk.press(Key.F9, Key.F8);
    await switched('Blackout', true);
    await switched('Freeze', true);
    const before = await seconds();
    expect(before).toBeGreaterThan(0);
    await desk.driver.navigate().refresh();
    await sceneButton('Teal', 'on');
    await sceneButton('Amber', 'next');
    await switched('Blackout', true);
    await switched('Freeze', true);
    await desk.find('[aria-label="Play"]');
    expect(await seconds()).toBeCloseTo(before, 0);
  });

  test('has what was pressed in the moment before a reload, which no engine has reported', async () => {
    for (const on of [false, true]) {
      await desk.driver.executeScript(`
        for (const type of ['keydown', 'keyup'])
          document.body.dispatchEvent(new KeyboardEvent(type, { key: 'F9', code: 'F9', bubbles: true }));
        location.reload();`);
      await sceneButton('Teal', 'on');
      await switched('Blackout', on);
      await switched('Freeze', true);
    }
  });

  test('survives the end of the engine', async () => {
    await desk.view('build');
    await desk.chooseNothing();
    await desk.click('button[title^="Stops the engine"]');
    await desk.notice('info', 'The engine is back');
    await switched('Blackout', true);
    await switched('Freeze', true);
    await desk.find('[aria-label="Play"]');
    await desk.view('play');
    await sceneButton('Teal', 'on');
    await sceneButton('Amber', 'next');
  });

  test('brings the next scene on, and leaves none as next', async () => {
    await desk.press(Key.F9, Key.F8);
    await switched('Freeze', false);
    await desk.press(Key.F7);
    await sceneButton('Amber', 'on');
    expect(await count('[data-state="next"]')).toBe(0);
  });

  test('of another show begins afresh', async () => {
    await desk.press(Key.F9, Key.F8);
    await switched('Blackout', true);
    await desk.view('build');
    const bar = await desk.find('[aria-label="Place in the loop"]');
    await desk.driver
      .actions()
      .keyDown(Key.SHIFT)
      .move({ origin: bar, x: -100, y: 0 })
      .press()
      .move({ origin: bar, x: 50, y: 0 })
      .release()
      .keyUp(Key.SHIFT)
      .perform();
    await desk.find('[data-testid="range"]');
    await desk.openShow(movingShow('Early Set', { Rose: [1, 0.3, 0.4] }));
    await switched('Blackout', false);
    await switched('Freeze', false);
    await desk.find('[aria-label="Pause"]');
    expect(await count('[data-testid="range"]')).toBe(0);
    await desk.moves();
  });
});

describe('several outputs of one source', () => {
  test('show the same picture, whatever their size, each whole and by itself', async () => {
    const editor = await desk.driver.getWindowHandle();
    const stages: string[] = [];
    for (const size of [
      { width: 640, height: 400 },
      { width: 420, height: 520 },
    ]) {
      await desk.driver.switchTo().window(editor);
      await desk.click('[aria-label="Stage"] .btn-primary');
      const handles = await desk.until(
        'another stage window',
        () => desk.driver.getAllWindowHandles(),
        (all) => all.length === stages.length + 2,
      );
      stages.push(handles.find((handle) => handle !== editor && !stages.includes(handle))!);
      await desk.driver.switchTo().window(stages.at(-1)!);
      await desk.driver.manage().window().setRect(size);
      await desk.moves('canvas');
    }
    await desk.driver.switchTo().window(editor);
    await desk.pause();
    const monitor = await desk.picture();
    for (const handle of stages) {
      await desk.driver.switchTo().window(handle);
      const { width, height } = await desk.driver.executeScript<{ width: number; height: number }>(
        'return { width: innerWidth, height: innerHeight }',
      );
      // Bars take what the shape of the window leaves: the rest is as bright as the monitor.
      const share = Math.min(1, ((width / height) * 9) / 16, ((height / width) * 16) / 9);
      await desk.until(
        'the same picture',
        () => desk.picture('canvas'),
        (p) => Math.abs(p.mean / share - monitor.mean) < 6,
      );
    }
    await desk.driver.switchTo().window(editor);
    await desk.play();
    for (const handle of stages) {
      await desk.driver.switchTo().window(handle);
      await desk.moves('canvas');
      await desk.driver.close();
    }
    await desk.driver.switchTo().window(editor);
    await desk.moves();
  });
});

describe('commands', () => {
  interface Listed {
    id: string;
    text: string;
    keys: string[];
    disabled: boolean;
  }
  const listed = async (): Promise<Listed[]> => {
    await desk.press('?');
    await desk.find('[data-testid="commands"] [data-command]');
    return desk.driver.executeScript<Listed[]>(
      `return [...document.querySelectorAll('[data-command]')].map((row) => ({
         id: row.dataset.command,
         text: row.innerText,
         keys: [...row.querySelectorAll('[data-keys]')].map((e) => e.dataset.keys),
         disabled: row.getAttribute('aria-disabled') === 'true',
       }))`,
    );
  };
  const closeList = async (): Promise<void> => {
    await desk.press(Key.ESCAPE);
    await desk.until(
      'the list gone',
      () => count('[data-testid="commands"] [data-command]'),
      (n) => n === 0,
    );
  };
  const fromList = async (id: string): Promise<void> => {
    await listed();
    await desk.click(`[data-command="${id}"]`);
    await desk.until(
      'the list gone',
      () => count('[data-testid="commands"] [data-command]'),
      (n) => n === 0,
    );
  };
  const names: Record<string, string> = {
    Ctrl: Key.CONTROL,
    Shift: Key.SHIFT,
    Alt: Key.ALT,
    ArrowLeft: Key.ARROW_LEFT,
    ArrowRight: Key.ARROW_RIGHT,
    Backspace: Key.BACK_SPACE,
    Delete: Key.DELETE,
    Enter: Key.ENTER,
    Escape: Key.ESCAPE,
    Home: Key.HOME,
    F7: Key.F7,
    F8: Key.F8,
    F9: Key.F9,
  };
  /** Presses keys as the list shows them. */
  const byKeys = async (keys: string): Promise<void> => {
    const parts = keys.split(/\+(?=.)/).map((part) => names[part] ?? part.toLowerCase());
    const held = parts.slice(0, -1);
    let actions = desk.driver.actions();
    for (const key of held) actions = actions.keyDown(key);
    actions = actions.sendKeys(parts.at(-1)!);
    for (const key of held.reverse()) actions = actions.keyUp(key);
    await actions.perform();
  };

  test('are all in the list, each with what it does; the guide has every key', async () => {
    const all = await listed();
    await closeList();
    expect(all.length).toBeGreaterThan(30);
    expect(new Set(all.map(({ id }) => id)).size).toBe(all.length);
    for (const { text } of all) expect(text.split('\n').filter(Boolean).length).toBeGreaterThanOrEqual(2);
    const keys = all.flatMap((command) => command.keys);
    expect(new Set(keys).size).toBe(keys.length);
    const guide = readFileSync(path.resolve(import.meta.dirname, '../docs/guide.md'), 'utf8');
    for (const key of keys) expect(guide).toContain(`\`${key}\``);
  });

  /** What tells that a command has run; a toggle is told by its other state. */
  const told: Record<string, () => Promise<unknown>> = {
    'stage.blackout': () => isOn('Blackout'),
    'stage.freeze': () => isOn('Freeze'),
    'stage.take': () => count('[aria-label="on stage"] + *, [data-scene="Two"] [aria-label="on stage"]'),
    'transport.play': () => count('[aria-label="Play"]'),
    'transport.step': () => desk.text('[data-testid="time"]'),
    'transport.start': () => desk.text('[data-testid="time"]'),
    'edit.undo': () => count('.react-flow__node'),
    'edit.redo': () => count('.react-flow__node'),
    'edit.cut': () => count('.react-flow__node'),
    'edit.paste': () => count('.react-flow__node'),
    'edit.duplicate': () => count('.react-flow__node'),
    'edit.delete': () => count('.react-flow__node'),
    'edit.all': () => count('.react-flow__node.selected'),
    'edit.none': () => count('.react-flow__node.selected'),
    'edit.switch': () => count('[data-node] .font-semibold'),
    'patch.add': () => count('[cmdk-input]'),
    'scene.new': () => count('[data-scene]'),
    'scene.duplicate': () => count('[data-scene]'),
    'scene.delete': () => count('[data-scene]'),
    'scene.after': () => desk.text('[data-scene][aria-selected="true"]'),
    'scene.before': () => desk.text('[data-scene][aria-selected="true"]'),
    'view.bench': () => count('[aria-label="Fold the bench"]'),
    'view.handles': () => isOn('Handles'),
    'view.cross': () => isOn('Centre'),
    'view.safe': () => isOn('Safe areas'),
    'view.theme': () => desk.driver.executeScript('return document.documentElement.dataset.theme'),
    'view.play': () => desk.driver.getCurrentUrl(),
    'view.inputs': () => desk.driver.getCurrentUrl(),
    'view.shows': () => desk.driver.getCurrentUrl(),
  };
  /** Runs something and waits until what tells of a command differs. */
  const runs = async (id: string, how: () => Promise<void>): Promise<void> => {
    const before = await told[id]();
    await how();
    await desk.until(`${id} to have run`, told[id], (now) => now !== before);
  };

  test('that need nothing chosen run from the list and by each of their keys', async () => {
    const keysOf = new Map((await listed()).map(({ id, keys }) => [id, keys]));
    await closeList();
    for (const id of ['stage.blackout', 'stage.freeze', 'transport.play', 'view.bench', 'view.theme']) {
      await runs(id, () => fromList(id));
      await runs(id, () => (keysOf.get(id)!.length ? byKeys(keysOf.get(id)![0]) : fromList(id)));
    }
    for (const id of ['view.handles', 'view.cross', 'view.safe']) {
      await runs(id, () => fromList(id));
      await runs(id, () => fromList(id));
    }
    await desk.pause();
    await runs('transport.step', async () => {
      // Six frames are a tenth of a second, which is what the time shows.
      for (let k = 0; k < 7; k++) await byKeys('Ctrl+.');
      await fromList('transport.step');
    });
    await runs('transport.start', () => byKeys('Ctrl+Home'));
    await desk.play();
    for (const [id, back] of [
      ['view.play', 'Alt+1'],
      ['view.inputs', 'Alt+1'],
      ['view.shows', 'Alt+1'],
    ]) {
      await runs(id, () => byKeys(keysOf.get(id)![0]));
      await byKeys(back);
      await desk.find('[data-testid="patch"]');
    }
    await runs('view.play', () => fromList('view.play'));
    await fromList('view.build');
    await desk.find('[data-testid="patch"]');
  });

  test('of scenes run from the list and by their keys', async () => {
    await runs('scene.new', () => fromList('scene.new'));
    await runs('scene.before', () => byKeys('Alt+ArrowLeft'));
    await runs('scene.after', () => byKeys('Alt+ArrowRight'));
    await runs('scene.delete', () => fromList('scene.delete'));
    await runs('scene.duplicate', () => fromList('scene.duplicate'));
    await byKeys('Ctrl+Shift+Enter');
    await desk.find('[data-scene][aria-selected="true"] [aria-label="on stage"]');
    await runs('scene.delete', () => fromList('scene.delete'));
  });

  test('of the patch run by their keys on what is chosen, and apply to nothing else', async () => {
    await desk.chooseNothing();
    const without = await listed();
    await closeList();
    const isDisabled = (all: Listed[], id: string): boolean => all.find((c) => c.id === id)!.disabled;
    for (const id of ['edit.cut', 'edit.copy', 'edit.duplicate', 'edit.delete', 'edit.switch'])
      expect(isDisabled(without, id)).toBe(true);
    await desk.choose('Levels');
    expect(isDisabled(await listed(), 'edit.cut')).toBe(false);
    await closeList();
    await desk.choose('Levels');
    await runs('edit.switch', () => byKeys('Ctrl+0'));
    await runs('edit.switch', () => fromList('edit.switch'));
    await byKeys('Ctrl+C');
    await runs('edit.paste', () => byKeys('Ctrl+V'));
    await runs('edit.undo', () => byKeys('Ctrl+Z'));
    await runs('edit.redo', () => byKeys('Ctrl+Y'));
    await runs('edit.undo', () => fromList('edit.undo'));
    await runs('edit.redo', () => byKeys('Ctrl+Shift+Z'));
    await runs('edit.delete', () => byKeys('Delete'));
    await desk.choose('Levels');
    await runs('edit.duplicate', () => byKeys('Ctrl+D'));
    await runs('edit.cut', () => byKeys('Ctrl+X'));
    await runs('edit.all', () => byKeys('Ctrl+A'));
    await runs('edit.none', () => byKeys('Escape'));
    await runs('patch.add', () => byKeys('/'));
    await desk.press(Key.ESCAPE);
  });
});
