import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { By } from 'selenium-webdriver';
import { Sketch } from '../demo/sketch';
import { Desk, smallShow } from './desk';

jest.setTimeout(180000);
let desk: Desk;
beforeAll(async () => void (desk = await Desk.open({ devices: true })), 120000);
afterAll(() => desk.close());

test('a microphone is heard through the audio thread: its beeps are counted by a node', async () => {
  const show = smallShow('Hears a room');
  const s = new Sketch('s1', 'Scene 1', [400, 0]);
  const onset = s.add('audio-onset', 'Beeps', [100, 200], { least: 0 });
  const shape = s.add('flat-shape', 'Disc', [100, 0]);
  const wire = s.wire(onset, shape, 'place.x', undefined, { lane: 'count' });
  delete s.scene.wires[wire].fit;
  s.wire(shape, s.out, 'picture');
  show.scenes = [s.scene];
  await desk.openShow(show);
  await desk.view('inputs');
  await desk.select('Sound from', 'A microphone or line', '[data-source="Sound"]');
  await desk.until(
    'the device',
    () => desk.text('[data-source="Sound"] [data-testid="source-status"]'),
    (t) => /Fake/i.test(t),
  );
  await desk.view('build');
  await desk.choose('Disc');
  // The made-up microphone beeps every now and then, for a few hundredths of a second: no frame need meet it.
  await desk.until(
    'three beeps',
    () => desk.liveValue('place.x'),
    (count) => count >= 3,
  );
  expect(await desk.driver.findElements(By.css('[data-notice="warning"]'))).toHaveLength(0);
});

test('one that is pulled is said, its values stay, and it is picked up again by itself', async () => {
  await desk.driver.executeScript(`
    const devices = navigator.mediaDevices;
    const open = devices.getUserMedia.bind(devices);
    devices.getUserMedia = async (wanted) => {
      const stream = await open(wanted);
      window.pulled = () => stream.getAudioTracks()[0].dispatchEvent(new Event('ended'));
      return stream;
    };`);
  const status = (): Promise<string> => desk.text('[data-source="Sound"] [data-testid="source-status"]');
  await desk.view('inputs');
  await desk.select('Sound from', 'Built-in loop', '[data-source="Sound"]');
  await desk.select('Sound from', 'A microphone or line', '[data-source="Sound"]');
  await desk.until('the device again', status, (t) => /Fake/i.test(t));
  await desk.view('build');
  await desk.choose('Disc');
  const before = await desk.until(
    'a beep',
    () => desk.liveValue('place.x'),
    (count) => count >= 1,
  );
  await desk.driver.executeScript('window.pulled()');
  await desk.notice('warning', 'is gone. The last values stay');
  expect(await desk.liveValue('place.x')).toBeGreaterThanOrEqual(before);
  await desk.view('inputs');
  await desk.until('it is picked up', status, (t) => /Fake/i.test(t));
});

test('what the microphone of the main machine hears, a player hears too, which has none', async () => {
  const show = smallShow('Heard elsewhere');
  const s = new Sketch('s1', 'Scene 1', [400, 0]);
  const lamp = s.add('fill', 'Lamp', [100, 0], { colour: [0, 0, 0, 1] });
  const onset = s.add('audio-onset', 'Beeps', [100, 200], { least: 0 });
  const wire = s.wire(onset, lamp, 'colour.r', undefined, { lane: 'count' });
  delete s.scene.wires[wire].fit;
  s.wire(lamp, s.out, 'picture');
  show.scenes = [s.scene];
  await desk.openShow(show);
  await desk.view('inputs');
  await desk.select('Sound from', 'A microphone or line', '[data-source="Sound"]');
  const main = await desk.driver.getWindowHandle();
  await desk.driver.switchTo().newWindow('window');
  await desk.driver.get(`${desk.address}/player?name=Ear`);
  await desk.until(
    'a lamp that was lit by a beep',
    () => desk.picture('canvas[data-output="stage"]:last-of-type'),
    (picture) => picture.red > 200 && picture.green < 5,
  );
  await desk.driver.close();
  await desk.driver.switchTo().window(main);
});
