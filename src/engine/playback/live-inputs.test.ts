import { describe, expect, jest, test } from '@jest/globals';
import { homeInputs } from '../../core/show/create';
import { silence } from '../../core/audio/listener';
import { idleControllers } from '../../core/inputs/inputs';
import { quietMidi } from '../../core/midi/state';
import { LiveInputs } from './live-inputs';

const sound = (change: object) => ({ ...homeInputs, sound: { ...homeInputs.sound, ...change } });
const sine = Float32Array.from({ length: 48000 }, (_, k) => 0.5 * Math.sin((2 * Math.PI * 300 * k) / 48000));

describe('what comes to the engine from outside', () => {
  test('the loop that ships is heard at the time of the show, and only if somebody hears', () => {
    const inputs = new LiveInputs();
    inputs.setShow(homeInputs);
    expect(inputs.at(1, false).sound.level).toBe(0);
    expect(inputs.at(1.05, true).sound.level).toBeGreaterThan(0.01);
    expect(inputs.meter().bands).toHaveLength(32);
  });
  test('exact frames hear the same, whatever was heard before', () => {
    const inputs = new LiveInputs();
    inputs.setShow(homeInputs);
    for (let k = 0; k < 40; k++) inputs.at(k / 30, true);
    const exact = inputs.exact();
    for (let k = 0; k < 96; k++) exact.at(k / 72, true);
    expect([...exact.at(4 / 3, true).sound.power]).toEqual([...inputs.at(4 / 3, true).sound.power]);
  });
  test('a file is heard once it is there, with the gain of the show', () => {
    const inputs = new LiveInputs();
    inputs.setShow(sound({ from: 'file', file: 'f1' }));
    expect(inputs.at(0.5, true).sound.level).toBe(0);
    inputs.addFile('f1', 48000, sine);
    expect(inputs.at(0.5, true).sound.level).toBeCloseTo(0.5 / Math.SQRT2, 2);
    inputs.setShow(sound({ from: 'file', file: 'f1', gain: -20 }));
    expect(inputs.at(0.5, true).sound.level).toBeCloseTo(0.05 / Math.SQRT2, 3);
    inputs.setShow(sound({ from: 'file', file: 'f2' }));
    expect(inputs.at(0.6, true).sound.level).toBe(0);
  });
  test('a device that went leaves its last values', async () => {
    const inputs = new LiveInputs();
    inputs.setShow(sound({ from: 'device' }));
    const { port1, port2 } = new MessageChannel();
    inputs.setStream(48000, port2);
    port1.postMessage(sine.slice(0, 4096));
    await new Promise<void>((resolve) => {
      const look = (): void => (inputs.at(0, true).sound.level > 0.3 ? resolve() : void setTimeout(look, 1));
      look();
    });
    inputs.setStream(48000, null);
    expect(inputs.at(1, true).sound.level).toBeCloseTo(0.5 / Math.SQRT2, 1);
    port1.close();
  });
  test('what another machine hears of its device comes before what is heard here, as long as it comes', () => {
    const inputs = new LiveInputs();
    inputs.setShow(sound({ from: 'device' }));
    expect(inputs.heardFromDevice).toBeNull();
    const now = jest.spyOn(performance, 'now').mockReturnValue(1000);
    inputs.hearElsewhere({ ...silence, level: 0.25 });
    expect(inputs.at(0, true).sound.level).toBe(0.25);
    const { port2 } = new MessageChannel();
    inputs.setStream(48000, port2);
    expect(inputs.at(0, true).sound.level).toBe(0.25);
    now.mockReturnValue(2000);
    expect(inputs.at(0, true).sound.level).toBe(0);
    expect(inputs.heardFromDevice).not.toBeNull();
    // A file is the same everywhere.
    inputs.setShow(sound({ from: 'loop' }));
    inputs.hearElsewhere({ ...silence, level: 0.9 });
    expect(inputs.at(1.05, true).sound.level).not.toBe(0.9);
    expect(inputs.heardFromDevice).toBeNull();
    inputs.setStream(48000, null);
    now.mockRestore();
  });
  test('a MIDI file plays with the show, and a hand comes over it', () => {
    const inputs = new LiveInputs();
    inputs.setShow(homeInputs);
    const control = (value: number) => ({ type: 'control' as const, channel: 1, control: 7, value });
    inputs.setMidiFile({ seconds: 2, events: [{ seconds: 1, event: control(127) }] }, 2);
    expect(inputs.at(0.5, false).midi.controls).toEqual({});
    expect(inputs.at(1, false).midi.controls['1/7']).toBe(1);
    inputs.controllers = { ...idleControllers(), midi: { ...quietMidi, controls: { '1/7': 0.25 } } };
    expect(inputs.at(1.1, false).midi.controls['1/7']).toBe(0.25);
    expect(inputs.exact().at(1, false).midi.controls['1/7']).toBe(1);
    inputs.setMidiFile(null, 0);
    expect(inputs.at(1.2, false).midi.controls).toEqual({ '1/7': 0.25 });
  });
});
