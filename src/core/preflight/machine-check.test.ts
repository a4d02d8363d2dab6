import { describe, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { makeNode, makeShow } from '../show/create';
import { addScreen } from '../show/edit-wall';
import type { Show } from '../document/types';
import { machineFindings, type MachineFacts } from './machine-check';

const good: MachineFacts = {
  isSoftware: false,
  hasFloats: true,
  hasCodecs: true,
  missingFonts: [],
  staysAwake: true,
  displays: 2,
  storage: { used: 1e8, quota: 1e10, isKept: true },
  server: true,
  power: { isCharging: true, share: 1 },
  midi: 'here',
  sound: 'here',
  soundRate: 48000,
};
const show = (change: (show: Show) => void = () => undefined): Show => {
  const made = makeShow(catalogue, 'Night');
  change(made);
  return made;
};
const of = (facts: Partial<MachineFacts>, change?: (show: Show) => void) =>
  machineFindings(show(change), catalogue, { ...good, ...facts });
const bound = (type: 'control' | 'osc') => (made: Show) =>
  void made.bindings.push({
    id: 'b',
    source: type === 'osc' ? { type, address: '/a' } : { type, channel: 1, number: 7 },
    target: { type: 'master', master: 'speed' },
    way: 'absolute',
    pickup: false,
  } as unknown as Show['bindings'][number]);

describe('what a machine lacks', () => {
  test('is nothing where all is there', () => expect(of({})).toEqual([]));
  test('is unknown where nothing is told', () =>
    expect(
      of({
        isSoftware: null,
        hasFloats: null,
        displays: null,
        storage: null,
        server: null,
        power: null,
        staysAwake: null,
      }),
    ).toEqual([]));
  test.each<[string, Partial<MachineFacts>, ((show: Show) => void) | undefined, RegExp]>([
    ['a graphics card', { isSoftware: true }, undefined, /without a graphics card/],
    ['deep pictures', { hasFloats: false }, undefined, /8 bits only/],
    ['power', { power: { isCharging: false, share: 0.34 } }, undefined, /battery \(34 %\)/],
    [
      'room on the disk',
      { storage: { used: 95e6, quota: 1e8, isKept: true } },
      undefined,
      /nearly full: 95 MB of 100 MB/,
    ],
    ['leave to keep', { storage: { used: 1, quota: 1e8, isKept: false } }, undefined, /may clear/],
    ['MIDI', { midi: 'idle' }, bound('control'), /1 binding wants MIDI/],
    ['OSC', { server: false }, bound('osc'), /OSC moves parts/],
    ['the line', { sound: 'away' }, (s) => void (s.inputs.sound.from = 'device'), /microphone or line/],
    ['time by MIDI', { midi: 'away' }, (s) => void (s.inputs.code = 'midi'), /Time comes by MIDI/],
    ['a display that stays awake', { staysAwake: false }, undefined, /keep displays awake/],
    ['samples', { soundRate: 16000 }, (s) => void (s.inputs.code = 'sound'), /hears 16000/],
  ])('%s', (_, facts, change, words) => {
    const found = of(facts, change);
    expect(found).toHaveLength(1);
    expect(found[0].what).toMatch(words);
  });
  test('what nobody uses is not missed', () =>
    expect(of({ midi: 'away', sound: 'away', server: false, soundRate: 8000 })).toEqual([]));
  test('videos without a decoder must not go on stage', () => {
    const found = of({ hasCodecs: false }, (s) => {
      s.scenes[0].nodes.c = makeNode(catalogue.get('clip')!, 'c', 'Clip', [0, 0]);
    });
    expect(found).toMatchObject([{ level: 'error' }]);
  });
  test('a font that texts are set in must be there', () => {
    const missing: Partial<MachineFacts> = { missingFonts: ['serif', 'mono'] };
    expect(of(missing)).toEqual([]);
    const found = of(missing, (s) => {
      const text = makeNode(catalogue.get('text')!, 't', 'Text', [0, 0]);
      text.controls.font = 'serif';
      s.scenes[0].nodes.t = text;
    });
    expect(found).toMatchObject([{ level: 'error', what: expect.stringMatching(/set in Fraunces, which/) }]);
  });
  test('more windows than displays', () => {
    const found = of({ displays: 1 }, (s) => {
      addScreen(s);
      addScreen(s);
    });
    expect(found[0].what).toMatch(/^2 outputs want a display/);
  });
});
