import { createSocket } from 'node:dgram';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { Sketch } from '../demo/sketch';
import { writePacket } from '../src/core/osc/packet';
import type { Show } from '../src/core/document/types';
import { Desk, smallShow } from './desk';

jest.setTimeout(400000);
let desk: Desk;
beforeAll(async () => void (desk = await Desk.open()));
afterAll(() => desk.close());

function showOf(name: string, fill: (s: Sketch) => void): Show {
  const show = smallShow(name);
  const s = new Sketch('s1', 'Scene 1', [400, 0]);
  fill(s);
  show.scenes = [s.scene];
  return show;
}
/** A disc whose size is there to be driven. */
const disc = (name: string): Show =>
  showOf(name, (s) => {
    const shape = s.add('flat-shape', 'Disc', [100, 0], { size: [0.5, 0.5] });
    s.wire(shape, s.out, 'picture');
  });

/** Presses Learn at a control of the chosen node, and waits until the desk waits. */
async function learn(label: string): Promise<void> {
  await desk.click(`[aria-label="Source of ${label}"]`);
  await desk.click('[data-sources] [aria-label="Learn"]');
  await desk.find('[data-testid="learning"]');
}
const notLearning = (): Promise<unknown> =>
  desk.until(
    'nothing to learn any more',
    async () => (await desk.driver.findElements(By.css('[data-testid="learning"]'))).length,
    (n) => n === 0,
  );

describe('learning', () => {
  test('a dial of the MIDI surface is learned by a control, which follows it', async () => {
    await desk.openShow(disc('Learns MIDI'));
    await desk.choose('Disc');
    await learn('Size x');
    await desk.view('inputs');
    const dial = await desk.find('[data-dial="23"]');
    await dial.sendKeys(Key.PAGE_UP);
    await notLearning();
    await desk.notice('info', 'Disc · Size follows Control 23');
    await (await desk.find('[data-dial="23"]')).sendKeys(Key.PAGE_UP, Key.PAGE_UP);
    await desk.view('build');
    await desk.choose('Disc');
    await desk.find('[data-node="Control 23"]');
    // 30 of 127 of the useful range.
    const range = await desk.driver.executeScript<number[]>(
      `const slider = document.querySelector('[data-part="size.x"] [role="slider"]'); return [slider.ariaValueMin, slider.ariaValueMax].map(Number)`,
    );
    const expected = range[0] + ((range[1] - range[0]) * 30) / 127;
    await desk.until(
      'the dial to be followed',
      () => desk.liveValue('size.x'),
      (v) => Math.abs(v - expected) < 0.02,
    );
  });

  test('Escape stops it, and a key is learned by an input node itself', async () => {
    await desk.openShow(showOf('Learns keys', (s) => void s.add('keys', 'Keys', [100, 200])));
    await desk.choose('Keys');
    await desk.click('[data-testid="inspector"] [aria-label="Learn"]');
    await desk.press(Key.ESCAPE);
    await notLearning();
    await desk.choose('Keys');
    await desk.click('[data-testid="inspector"] [aria-label="Learn"]');
    await desk.find('[data-testid="learning"]');
    await desk.press('k');
    await notLearning();
    await desk.until(
      'the key',
      () => desk.text('[data-part="key"]'),
      (t) => /K$/.test(t),
    );
  });
});

describe('OSC', () => {
  test('real packets over UDP reach a control; what is no OSC is said', async () => {
    const port = 9471;
    const show = showOf('Hears OSC', (s) => {
      const osc = s.add('osc', 'Glow', [100, 200], { address: '/hive/glow' });
      const shape = s.add('flat-shape', 'Disc', [100, 0]);
      s.wire(osc, shape, 'softness', [0, 1]);
      s.wire(shape, s.out, 'picture');
    });
    show.inputs.osc.port = port;
    await desk.openShow(show);
    await desk.choose('Disc');
    const socket = createSocket('udp4');
    const send = (bytes: Uint8Array): void => socket.send(bytes, port, '127.0.0.1');
    try {
      for (const value of [0.25, 0.75]) {
        await desk.until(
          `${value} at the control`,
          () => {
            send(writePacket({ address: '/hive/glow', args: [value] }));
            return desk.liveValue('softness');
          },
          (v) => Math.abs(v - value) < 0.001,
        );
      }
      await desk.view('inputs');
      await desk.find('[data-osc="/hive/glow"]');
      await desk.until(
        'the fault',
        () => {
          send(Uint8Array.of(1, 2, 3));
          return desk.text('[data-source="OSC"] [data-testid="source-status"]');
        },
        (t) => t.includes('no OSC'),
      );
      // The sender on the desk takes the same way.
      const count = async (): Promise<number> =>
        Number(/×(\d+)/.exec(await desk.text('[data-osc="/hive/glow"]'))![1]);
      const before = await count();
      await desk.click('[data-source="OSC"] .btn');
      await desk.until('one more', count, (n) => n > before);
    } finally {
      socket.close();
    }
  });
});

describe('sound', () => {
  test('the loop plays: bass stands in the low bands, and its tempo is found', async () => {
    await desk.openShow(disc('Hears the loop'));
    await desk.view('inputs');
    const meter = await desk.find('canvas[aria-label="Bands of the sound"]');
    const sums = new Float64Array(32);
    /** How high each bar stands, 0..1. */
    const bands = async (): Promise<number[]> =>
      desk.driver.executeScript(
        `const [canvas] = arguments;
         const { width, height } = canvas;
         const { data } = canvas.getContext('2d').getImageData(0, 0, width, height);
         const bars = width - 24 * devicePixelRatio;
         return Array.from({ length: 32 }, (_, k) => {
           const x = Math.floor(((k + 0.3) * bars) / 32);
           let lit = 0;
           for (let y = 0; y < height; y++) if (data[4 * (y * width + x) + 3] > 0) lit++;
           return lit / height;
         });`,
        meter,
      );
    const third = (from: number): number => sums.slice(from, from + 10).reduce((a, b) => a + b, 0);
    await desk.until(
      'more bass than treble',
      async () => {
        (await bands()).forEach((v, k) => (sums[k] += v));
        return [third(0), third(22)];
      },
      ([low, high]) => low > 6 && low > 1.3 * high,
    );
    await desk.until(
      'the tempo',
      () => desk.text('[data-testid="heard-tempo"]'),
      (t) => Math.abs(parseFloat(t) - 120) < 1,
    );
  });

  test('a sound file drives a node: loud and silent parts are told apart', async () => {
    const show = showOf('Hears a file', (s) => {
      const level = s.add('audio-level', 'Level', [100, 200], { rise: 0, fall: 0 });
      const shape = s.add('flat-shape', 'Disc', [100, 0]);
      s.wire(level, shape, 'softness', [0, 1]);
      s.wire(shape, s.out, 'picture');
    });
    await desk.openShow(show);
    await desk.view('inputs');
    await desk.select('Sound from', 'A file', '[data-source="Sound"]');
    // A tone of two seconds, then two of silence.
    await desk.driver.executeScript(`
      const rate = 8000, count = rate * 4;
      const bytes = new DataView(new ArrayBuffer(44 + 2 * count));
      const text = (at, t) => [...t].forEach((c, k) => bytes.setUint8(at + k, c.charCodeAt(0)));
      text(0, 'RIFF'); bytes.setUint32(4, 36 + 2 * count, true); text(8, 'WAVEfmt ');
      bytes.setUint32(16, 16, true); bytes.setUint16(20, 1, true); bytes.setUint16(22, 1, true);
      bytes.setUint32(24, rate, true); bytes.setUint32(28, 2 * rate, true); bytes.setUint16(32, 2, true);
      bytes.setUint16(34, 16, true); text(36, 'data'); bytes.setUint32(40, 2 * count, true);
      for (let k = 0; k < rate * 2; k++) bytes.setInt16(44 + 2 * k, 30000 * Math.sin(k * 0.4), true);
      const files = new DataTransfer();
      files.items.add(new File([bytes.buffer], 'tone.wav', { type: 'audio/wav' }));
      const input = document.querySelector('[data-testid="sound-input"]');
      input.files = files.files;
      input.dispatchEvent(new Event('change', { bubbles: true }));`);
    await desk.until(
      'the file',
      () => desk.text('[data-source="Sound"] select[aria-label="Sound file"]'),
      (t) => t.includes('tone.wav'),
    );
    await desk.view('build');
    await desk.choose('Disc');
    const value = (): Promise<number> => desk.liveValue('softness');
    await desk.until('the tone', value, (v) => v > 0.9);
    await desk.until('the silence', value, (v) => v < 0.05);
  });

  test('what is no sound is said, and the show goes on', async () => {
    await desk.openShow(disc('No sound'));
    await desk.view('inputs');
    await desk.find('[data-testid="sound-input"]');
    await desk.driver.executeScript(`
      const files = new DataTransfer();
      files.items.add(new File(['no sound'], 'broken.wav', { type: 'audio/wav' }));
      const input = document.querySelector('[data-testid="sound-input"]');
      input.files = files.files;
      input.dispatchEvent(new Event('change', { bubbles: true }));`);
    await desk.notice('warning', 'broken.wav cannot be read');
    await desk.view('build');
    await desk.until(
      'the disc',
      () => desk.picture(),
      (p) => p.lit > 0.02,
    );
  });
});

describe('a hit that travels', () => {
  test('a key hit twice sends two waves: the second does not cut the first', async () => {
    await desk.openShow(
      showOf('Two waves', (s) => {
        const keys = s.add('keys', 'Key', [0, 200]);
        const ripple = s.add('ripple', 'Ripple', [200, 200], {
          samples: 24,
          from: 'first',
          time: 6,
          attack: 0.1,
          decay: 1.2,
        });
        s.wire(keys, ripple, 'hit');
      }),
    );
    await desk.choose('Ripple');
    await desk.until(
      'the elements',
      () => desk.benchLane(),
      (row) => row.length === 24,
    );
    await desk.press(' ');
    await desk.until(
      'the first on its way',
      () => desk.benchLane(),
      (row) => Math.max(...row.slice(9)) > 0.4,
    );
    await desk.press(' ');
    const crests = (row: number[]): number =>
      row.filter((v, k) => v > 0.3 && v >= (row[k - 1] ?? 0) && v > (row[k + 1] ?? 0)).length;
    const row = await desk.until(
      'two waves',
      () => desk.benchLane(),
      (r) => crests(r) >= 2,
    );
    expect(Math.min(...row)).toBeLessThan(0.2);
  });
});
