import { createSocket, type Socket } from 'node:dgram';
import { once } from 'node:events';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { Key } from 'selenium-webdriver';
import { Sketch } from '../demo/sketch';
import type { LedWall, OutputPart, PixelString, ScreenOutput } from '../src/core/document/types';
import { addLedWall, addPixelString, addScreen } from '../src/core/show/edit-wall';
import { orbitFor, viewOf } from '../src/core/wall/orbit';
import { seenInRoom, stringInRoom, tileInRoom, type Vec3 } from '../src/core/wall/room';
import { blendAt } from '../src/core/wall/blend';
import { noBlend } from '../src/core/wall/screens';
import { flatPoints, flatWarp, warpAt } from '../src/core/wall/warp';
import { Desk, smallShow } from './desk';

jest.setTimeout(400000);
let desk: Desk;
let editor: string;
const windows = new Map<string, string>();

/** A show whose picture says in red and green which place of the canvas is seen. */
function wallShow() {
  const show = smallShow('Three Screens');
  const s = new Sketch('s1', 'Map', [300, 0]);
  s.wire(s.add('coordinate-map', 'Where', [0, 0]), s.out, 'picture');
  show.scenes = [s.scene];
  const screen = (name: string, part: Partial<OutputPart>, change: Partial<ScreenOutput> = {}): void => {
    const id = addScreen(show);
    const output = show.wall.outputs.find((one) => one.id === id) as ScreenOutput;
    Object.assign(output, { name, ...change, part: { ...output.part, ...part } });
  };
  screen('Whole', {});
  screen('Corner', { x: 0, y: 90, width: 160, height: 90 });
  // Two tiles side by side above one that hangs on its side; wired to and fro.
  addLedWall(show);
  const led = show.wall.outputs.at(-1) as LedWall;
  Object.assign(led, {
    name: 'Tiles',
    place: { x: 100, y: 60 },
    tile: [40, 20],
    tiles: [
      { x: 0, y: 0, turn: 0, outline: null },
      { x: 40, y: 0, turn: 0, outline: null },
      { x: 60, y: 20, turn: 1, outline: null },
    ],
    raster: { ...led.raster, width: 120, height: 20, serpentine: true },
  });
  screen('Tall', { x: 160, y: 0, width: 80, height: 160 }, { quarterTurns: 1 });
  return show;
}

const writeFile = (name: string, text: string): string => {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'pyrvel-wall-')), name);
  writeFileSync(file, text);
  return file;
};

const into = (window: string): Promise<void> => desk.driver.switchTo().window(window);

async function openScreen(name: string): Promise<void> {
  await into(editor);
  const before = await desk.driver.getAllWindowHandles();
  await desk.click(`[aria-label="Open ${name}"]`);
  const after = await desk.until(
    `the window of ${name}`,
    () => desk.driver.getAllWindowHandles(),
    (all) => all.length > before.length,
  );
  windows.set(
    name,
    after.find((handle) => !before.includes(handle))!,
  );
}

/** Waits until a window shows a place of the canvas (shares from its lower left) at a place of its own (shares from its top left). */
async function shows(
  name: string,
  at: readonly [number, number],
  canvas: readonly [number, number] | 'black',
) {
  await into(windows.get(name)!);
  const wanted = canvas === 'black' ? [0, 0] : canvas.map((share) => share * 255);
  await desk.until(
    `${name} to show ${String(canvas)} at ${String(at)}`,
    () => desk.seenAround(...at),
    ({ red, green }) => Math.abs(red - wanted[0]) < 6 && Math.abs(green - wanted[1]) < 6,
  );
}

/** A number of the inspector. */
const number = (label: string): Promise<number> =>
  desk.find(`[aria-label="${label}"]`).then(async (e) => Number(await e.getAttribute('aria-valuenow')));

beforeAll(async () => {
  desk = await Desk.open();
  await desk.openShow(wallShow());
  editor = await desk.driver.getWindowHandle();
  await desk.click('nav a[href="/wall"]');
  await desk.find('[data-part="Corner"]');
});
afterAll(() => desk?.close());

describe('an LED wall', () => {
  /** The same for a pixel of the raster and one of the canvas, from their top left. */
  const feeds = async (
    [x, y]: readonly [number, number],
    [cx, cy]: readonly [number, number],
  ): Promise<void> => {
    await into(windows.get('Tiles')!);
    const [width, height] = await desk.driver.executeScript<[number, number]>(
      'return [innerWidth, innerHeight]',
    );
    await shows('Tiles', [x / width, y / height], [cx / 320, 1 - cy / 180]);
  };

  test('feeds its processor pixel for pixel, tile after tile, turned ones turned', async () => {
    await openScreen('Tiles');
    await feeds([10, 5], [110, 65]);
    await feeds([70, 15], [170, 75]);
    // Turned clockwise: the upper left of the third tile hangs at the upper right of its place.
    await feeds([85, 5], [175, 85]);
    await feeds([115, 15], [165, 115]);
  });

  test('tiles are wired another way, moved in the raster by hand, and laid out anew', async () => {
    await into(editor);
    await desk.click('[data-output-row="Tiles"] button');
    await desk.select('Wired from', 'Top right', '[data-testid="led-inspector"]');
    await feeds([10, 5], [150, 65]);
    await into(editor);
    await desk.click('[role="tablist"][aria-label="Plans"] [role="tab"]:nth-child(2)');
    await desk.click('[aria-label="Handles"] button:last-child');
    await desk.click('[data-tile="2"]');
    await desk.chord(Key.SHIFT, Key.ARROW_RIGHT);
    expect(await desk.text('[data-testid="raster-faults"]')).toContain('1 pairs of tiles share pixels');
    await desk.click('section[aria-label="Raster of the processor"] .tool:last-child');
    await desk.until(
      'the fault to go',
      () => desk.driver.executeScript('return document.querySelector(`[data-testid="raster-faults"]`)'),
      (fault) => fault === null,
    );
    await desk.click('section[aria-label="Rows and columns"] .tool');
    await desk.until(
      'twelve tiles',
      () => desk.text('[data-testid="led-size"]'),
      (text) => text.startsWith('12 tiles · 160 x 60 px'),
    );
    await desk.chord(Key.CONTROL, 'z');
    await desk.until(
      'three tiles',
      () => desk.text('[data-testid="led-size"]'),
      (text) => text.startsWith('3 tiles'),
    );
  });
});

describe('a string of pixels', () => {
  let node: Socket;
  const heard: Buffer[] = [];
  /** Colours of the pixels in the last Art-Net packet that came, in the order of its channels. */
  const latest = (): number[] => [...(heard.at(-1)?.subarray(18) ?? [])];
  beforeAll(async () => {
    // An address of this machine by which no other program listens to Art-Net.
    node = createSocket('udp4');
    node.on('message', (bytes) => heard.push(bytes));
    node.bind(6454, '127.0.0.77');
    await once(node, 'listening');
  });
  afterAll(() => void node.close());

  const inspector = '[data-testid="string-inspector"]';
  const near = (values: readonly number[]) => (now: readonly number[]) =>
    now.length === values.length && now.every((v, k) => Math.abs(v - values[k]) < 6);

  test('arrives at its node as Art-Net, pixel by pixel', async () => {
    await into(editor);
    await desk.click('[aria-label="Outputs"] button[title^="Adds a run of single pixels"]');
    await desk.type('Pixels', '4', inspector);
    await desk.type('Gamma', '1', inspector);
    await desk.select('Order of the channels', 'RGB', inspector);
    await desk.select('Protocol', 'Art-Net 4', inspector);
    await desk.fill('Address', '127.0.0.77', inspector);
    // Along a line from a tenth to nine tenths of the canvas, at 85 % of its height.
    const places = [0.2, 0.4, 0.6, 0.8];
    await desk.until(
      'the pixels',
      async () => latest(),
      near(places.flatMap((x) => [x * 255, 0.15 * 255, 0])),
    );
    const [packet] = heard;
    expect(packet.subarray(0, 8).toString('latin1')).toBe('Art-Net\0');
    expect(packet.readUInt16LE(8)).toBe(0x5000);
    expect(packet.readUInt16LE(14)).toBe(1);
    expect(packet.readUInt16BE(16)).toBe(12);
    await desk.until(
      'the state',
      () => desk.text('[data-testid="pixel-state"]'),
      (text) => /^sending · \d+ packets · \d/.test(text),
    );
  });

  test('goes on while the main thread of the editor is blocked', async () => {
    const blockMs = 1500;
    const before = heard.length;
    const started = Date.now();
    await desk.driver.executeScript(
      'const until = performance.now() + arguments[0]; while (performance.now() < until);',
      blockMs,
    );
    expect(Date.now() - started).toBeGreaterThanOrEqual(blockMs - 50);
    expect(heard.length).toBeGreaterThan(before + 2);
  });

  test('is dark in a blackout', async () => {
    await desk.press(Key.F9);
    await desk.until('darkness', async () => latest(), near(new Array<number>(12).fill(0)));
    await desk.press(Key.F9);
    await desk.until(
      'light',
      async () => latest(),
      (now) => now[0] > 40,
    );
  });

  test('is sent to the network only once that is allowed', async () => {
    await desk.fill('Address', '192.0.2.77', inspector);
    await desk.until(
      'the refusal',
      () => desk.text('[data-testid="pixel-state"]'),
      (text) => text.includes('192.0.2.77'),
    );
    await desk.click('[data-testid="pixel-state"] button');
    await desk.until(
      'the permission',
      () => desk.text('[data-testid="pixel-state"]'),
      (text) => text.startsWith('sending'),
    );
    await desk.press(Key.ESCAPE);
    await desk.press(Key.DELETE);
    await desk.until(
      'no string',
      () => desk.driver.executeScript<number>('return document.querySelectorAll("[data-output-row]").length'),
      (n) => n === 4,
    );
  });
});

describe('the room', () => {
  const inspector = '[data-testid="string-inspector"]';
  /** What the room shows at a place in it. */
  const seenAt = async (place: Vec3): Promise<{ red: number; green: number; blue: number }> => {
    const { x, y, width, height } = await desk.driver.executeScript<DOMRect>(
      'return document.querySelector(`[data-testid="room"]`).getBoundingClientRect()',
    );
    const view = viewOf(orbitFor('front', hung.wall, hung.canvas));
    const [sx, sy] = seenInRoom(view, place, width / height)!;
    const [w, h] = await desk.driver.executeScript<[number, number]>('return [innerWidth, innerHeight]');
    return desk.seenAround((x + sx * width) / w, (y + sy * height) / h);
  };
  /** The show as it is now: one pixel string more than it began with. */
  let hung: ReturnType<typeof wallShow>;

  beforeAll(async () => {
    await into(editor);
    await desk.click('[aria-label="Outputs"] button[title^="Adds a run of single pixels"]');
    await desk.type('Pixels', '4', inspector);
    await desk.type('Gamma', '1', inspector);
    await desk.select('Order of the channels', 'RGB', inspector);
    await desk.select('Protocol', 'Art-Net 4', inspector);
    await desk.select('Goes to', 'Simulated', inspector);
    hung = wallShow();
    addPixelString(hung);
    const string = hung.wall.outputs.at(-1) as PixelString;
    Object.assign(string, { pixels: 4, order: 'RGB', gamma: 1 });
    Object.assign(string.send, { protocol: 'artnet', simulated: true });
    await desk.click('[role="tablist"][aria-label="Plans"] [role="tab"]:nth-child(3)');
    await desk.press(Key.ESCAPE);
  });

  test('shows the pixels of a string after they travelled as UDP, each in its place', async () => {
    const string = hung.wall.outputs.at(-1) as PixelString;
    const places = stringInRoom(string, hung.canvas);
    // From a fifth to four fifths of the canvas: more and more red.
    for (let k = 0; k < 4; k++) {
      const place = [places[3 * k], places[3 * k + 1], places[3 * k + 2]] as const;
      await desk.until(
        `pixel ${k + 1} in the room`,
        () => seenAt(place),
        // In linear light what is sent is what was sampled; the screen shows its root.
        ({ red, green }) => Math.abs(red - 255 * (0.2 + 0.2 * k) ** (1 / 2.2)) < 30 && green > 60,
      );
    }
    await desk.doubleClick(await desk.find('[aria-label="Room"]'));
    const row = await desk.until(
      'its packets',
      () => desk.text('[data-arrives="Pixel string"]'),
      (text) => Number(text.split(/\s+/).at(-4)) > 5,
    );
    expect(row.split(/\s+/).slice(-2)).toEqual(['0', '0']);
  });

  test('shows screens with what their windows show, and the tiles of an LED wall by way of its raster', async () => {
    const led = hung.wall.outputs.find(({ name }) => name === 'Tiles') as LedWall;
    const [upperLeft, upperRight, lowerLeft] = tileInRoom(led, 2, hung.canvas);
    const middle = [0, 1, 2].map((k) => (upperRight[k] + lowerLeft[k]) / 2) as unknown as Vec3;
    expect(upperLeft[0]).toBeLessThan(upperRight[0]);
    // The third tile hangs on its side, from 60 to 70 and 20 to 30 of the wall's pixels, at 100, 60 of the canvas.
    await desk.until(
      'the third tile',
      () => seenAt(middle),
      ({ red, green }) =>
        Math.abs(red - (170 / 320) * 255) < 14 && Math.abs(green - (1 - 100 / 180) * 255) < 14,
    );
  });

  test('goes on after the server was away, and says so meanwhile', async () => {
    const start = await desk.stopServer();
    await desk.until(
      'the news',
      () => desk.text('[data-testid="room-inspector"]'),
      (text) => text.includes('The server is away'),
    );
    await start();
    await desk.until(
      'its return',
      () => desk.text('[data-testid="room-inspector"]'),
      (text) => !text.includes('The server is away') && text.includes('Pixel string'),
    );
  });

  test('a test picture is on a string too, through a freeze, and goes with it', async () => {
    const string = hung.wall.outputs.at(-1) as PixelString;
    const places = stringInRoom(string, hung.canvas);
    await desk.press(Key.F8);
    await desk.select('Test picture', 'Grid', '[aria-label="Outputs"]');
    await desk.click('[aria-label="Test picture on Pixel string"]');
    await desk.until(
      'the green of the first pixel',
      () => seenAt([places[0], places[1], places[2]]),
      ({ red, green }) => green > 2.5 * red,
    );
    await desk.click('[aria-label="Test picture on Pixel string"]');
    await desk.until(
      'the frozen picture',
      () => seenAt([places[0], places[1], places[2]]),
      ({ red, green }) => Math.abs(red - 255 * 0.2 ** (1 / 2.2)) < 30 && green < 1.5 * red,
    );
    await desk.press(Key.F8);
  });

  test('an output that is clicked is chosen, hung elsewhere by numbers, and comes back', async () => {
    await desk.click('[data-output-row="Whole"] button');
    const inspect = '[data-testid="screen-inspector"]';
    await desk.type('At, metres y', '5', inspect);
    expect(await number('At, metres y')).toBe(5);
    await desk.click('section[aria-label="In the room"] button');
    await desk.until(
      'its home',
      () => number('At, metres y'),
      (y) => Math.abs(y - (0.5 + (3 * 180) / 320)) < 0.02,
    );
    await desk.click('[data-output-row="Pixel string"] button');
    await desk.press(Key.DELETE);
    await desk.click('[role="tablist"][aria-label="Plans"] [role="tab"]:first-child');
  });

  test('tiles hang as the outlines of a drawing do, and another kind of file is refused', async () => {
    await desk.click('[data-output-row="Tiles"] button');
    const file = await desk.find('[data-testid="outlines-file"]');
    await file.sendKeys(writeFile('not.svg', '<html><body/></html>'));
    await desk.notice('error', 'no SVG drawing');
    const cells = Array.from(
      { length: 7 },
      (_, k) => `<polygon points="${10 * k},0 ${10 * k + 8},4 ${10 * k},8"/>`,
    );
    await file.sendKeys(
      writeFile('cells.svg', `<svg xmlns="http://www.w3.org/2000/svg">${cells.join('')}</svg>`),
    );
    await desk.until(
      'seven tiles',
      () => desk.text('[data-testid="led-size"]'),
      (text) => text.startsWith('7 tiles'),
    );
    expect(
      await desk.driver.executeScript('return document.querySelectorAll("[data-tile] polygon").length'),
    ).toBe(7);
    await desk.chord(Key.CONTROL, 'z');
    await desk.until(
      'three tiles',
      () => desk.text('[data-testid="led-size"]'),
      (text) => text.startsWith('3 tiles'),
    );
  });
});

describe('screens of one canvas', () => {
  test('each shows its part in its window', async () => {
    for (const name of ['Whole', 'Corner', 'Tall']) await openScreen(name);
    await shows('Whole', [0.25, 0.25], [0.25, 0.75]);
    await shows('Corner', [0.5, 0.5], [0.25, 0.25]);
    await shows('Corner', [0.9, 0.1], [0.45, 0.45]);
    // Turned clockwise: what is at its upper left lies at the lower left of the part.
    await shows('Tall', [0.1, 0.1], [(160 + 8) / 320, 1 - 144 / 180]);
    await shows('Tall', [0.9, 0.9], [(160 + 72) / 320, 1 - 16 / 180]);
    await into(editor);
    const state = await desk.text('[data-output-row="Corner"] [data-testid="screen-state"]');
    expect(state).toMatch(/^open · \d+ x \d+( · \d+ Hz)?$/);
  });

  test('a part that is dragged meets the middle of the canvas, and arrow keys move it by a pixel', async () => {
    await into(editor);
    await desk.click('[role="tablist"][aria-label="Plans"] [role="tab"]:first-child');
    const part = await desk.find('[data-part="Corner"]');
    const { width } = await part.getRect();
    const scale = width / 160;
    await desk.driver
      .actions({ async: true })
      .move({ origin: part })
      .press()
      .move({ origin: part, x: Math.round(40 * scale), y: -Math.round(44 * scale), duration: 100 })
      .release()
      .perform();
    // The upper edge is brought to that of a middle by itself; to the side there is nothing near.
    await desk.until(
      'the part at the middle',
      () => number('Place y'),
      (y) => y === 45,
    );
    await desk.press(Key.ARROW_RIGHT);
    const x = await number('Place x');
    await shows('Corner', [0.5, 0.5], [(x + 80) / 320, 0.5]);
    await into(editor);
    await desk.chord(Key.CONTROL, 'z');
    await desk.chord(Key.CONTROL, 'z');
    await desk.until(
      'the place before',
      () => number('Place y'),
      (y) => y === 90,
    );
  });

  test('a corner that is dragged on the output takes the corner of the picture along', async () => {
    await into(editor);
    await desk.click('[data-output-row="Corner"] button');
    await desk.click('[role="tablist"][aria-label="Plans"] [role="tab"]:nth-child(2)');
    const point = await desk.find('[data-point="Point 1.1"]');
    const frame = await (await desk.find('[aria-label="Picture of Corner"]')).getRect();
    await desk.driver
      .actions({ async: true })
      .move({ origin: point })
      .press()
      .move({
        origin: point,
        x: Math.round(0.4 * frame.width),
        y: Math.round(0.4 * frame.height),
        duration: 100,
      })
      .release()
      .perform();
    const [x, y] = [await number('Point x'), await number('Point y')];
    expect(Math.abs(x - 40)).toBeLessThan(2);
    const warp = {
      ...flatWarp(),
      points: [[x / 100, y / 100], ...flatPoints(2, 2).slice(1)] as [number, number][],
    };
    await shows('Corner', [0.3, 0.3], 'black');
    for (const [u, v] of [
      [0.1, 0.1],
      [0.8, 0.3],
      [0.5, 0.9],
    ])
      await shows('Corner', warpAt(warp, u, v), [u / 2, (1 - v) / 2]);
    await into(editor);
    await desk.chord(Key.SHIFT, Key.ARROW_LEFT);
    await desk.until(
      'the point a hundredth to the left',
      () => number('Point x'),
      (now) => Math.abs(now - (x - 1)) < 0.01,
    );
    await desk.click('section[aria-label="Warp"] button');
    await shows('Corner', [0.1, 0.1], [0.05, 0.45]);
  });

  test('a mask cuts away, a blend darkens towards its edge, a colour is taken back', async () => {
    await into(editor);
    await desk.click('[data-output-row="Whole"] button');
    await desk.click('section[aria-label="Masks"] .tool');
    await shows('Whole', [0.1, 0.5], 'black');
    await shows('Whole', [0.5, 0.5], [0.5, 0.5]);
    await into(editor);
    await desk.click('[aria-label="Remove mask 1"]');
    await shows('Whole', [0.1, 0.5], [0.1, 0.5]);
    await into(editor);
    await desk.type('Left, right right', '50', '[data-testid="screen-inspector"]');
    const kept = blendAt({ ...noBlend(), right: 0.5 }, 0.875, 0.5) ** (1 / 2.2);
    await shows('Whole', [0.875, 0.5], [0.875 * kept, 0.5 * kept]);
    await into(editor);
    await desk.click('section[aria-label="Edge blend"] button');
    await desk.type('Gain red', '0.5', '[data-testid="screen-inspector"]');
    await shows('Whole', [0.8, 0.5], [0.4, 0.5]);
    await into(editor);
    await desk.click('section[aria-label="Colour"] button');
    await shows('Whole', [0.8, 0.5], [0.8, 0.5]);
  });

  test('a test picture is on all outputs with one key, and gone with it', async () => {
    await into(editor);
    await desk.select('Test picture', 'Bars', '[aria-label="Outputs"]');
    await desk.press(Key.F6);
    // The sixth of eight bars is red.
    for (const name of ['Whole', 'Corner']) await shows(name, [5.5 / 8, 0.2], [1, 0]);
    await into(editor);
    expect(await desk.text('[data-output-row="Corner"] [data-testid="screen-state"]')).toContain('bars');
    await desk.press(Key.F6);
    await shows('Corner', [0.5, 0.5], [0.25, 0.25]);
  });

  test('windows go on and are known again when the editor is reloaded', async () => {
    await into(editor);
    await desk.driver.navigate().refresh();
    await desk.find('[data-output-row="Corner"]');
    await desk.until(
      'the windows to announce themselves',
      () => desk.text('[data-output-row="Corner"] [data-testid="screen-state"]'),
      (text) => text.startsWith('open'),
    );
    await shows('Corner', [0.5, 0.5], [0.25, 0.25]);
    await shows('Tall', [0.1, 0.1], [(160 + 8) / 320, 1 - 144 / 180]);
  });

  test('show their parts also while nothing else looks at the canvas, and another part as soon as it is asked for', async () => {
    await into(windows.get('Whole')!);
    await desk.driver.close();
    windows.delete('Whole');
    await into(editor);
    await desk.click('[aria-label="Views"] [href="/shows"]');
    await desk.find('[data-testid="import"]');
    await shows('Corner', [0.5, 0.5], [0.25, 0.25]);
    await shows('Tall', [0.1, 0.1], [(160 + 8) / 320, 1 - 144 / 180]);
    await into(editor);
    await desk.click('[aria-label="Views"] [href="/wall"]');
    await openScreen('Whole');
    await into(editor);
    await desk.click('[aria-label="Views"] [href="/shows"]');
    for (const place of [
      [0.9, 0.9],
      [0.1, 0.1],
      [0.9, 0.1],
    ] as const)
      await shows('Whole', place, [place[0], 1 - place[1]]);
    await into(editor);
    await desk.click('[aria-label="Views"] [href="/wall"]');
    await desk.find('[data-output-row="Corner"]');
  });

  test('a screen that is removed leaves its window with the whole canvas', async () => {
    await into(editor);
    await desk.click('[data-output-row="Corner"] button');
    await desk.press(Key.DELETE);
    await desk.until(
      'one row less',
      () => desk.driver.executeScript<number>('return document.querySelectorAll("[data-output-row]").length'),
      (n) => n === 3,
    );
    await shows('Corner', [0.5, 0.5], [0.5, 0.5]);
    await into(editor);
    await desk.chord(Key.CONTROL, 'z');
    await shows('Corner', [0.5, 0.5], [0.25, 0.25]);
  });
});
