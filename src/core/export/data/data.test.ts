import { describe, expect, test } from '@jest/globals';
import { readMidiFile } from '../../midi/file';
import { ballShape } from '../../shape/make';
import { makeShow } from '../../show/create';
import { addNode, connect } from '../../show/edit';
import type { Signal } from '../../signal/signal';
import { catalogue } from '../../../nodes/catalogue';
import { checkData, formatsOf, type DataRequest } from './data-request';
import { patchMarkdown, patchSvg } from './patch';
import { copyOf, signalCsv, signalJson, signalMidi, signalWav } from './samples';
import { shapeObj, shapePly } from './shapes';

const signal = (...values: number[][]): Signal => ({
  length: values[0].length,
  lanes: values.map((samples, k) => ({ name: 'xy'[k], samples: Float32Array.from(samples) })),
});

describe('a signal as a file', () => {
  const frames = [signal([0.5, 1], [2, 3]), signal([0.25, -1], [4, 5])];

  test('is a row for each sample of each frame in CSV', () => {
    expect(signalCsv({ rate: 10, first: 7, frames })).toBe(
      'frame,seconds,sample,x,y\n7,0.7,0,0.5,2\n7,0.7,1,1,3\n8,0.8,0,0.25,4\n8,0.8,1,-1,5\n',
    );
  });

  test('is lists by lane and frame in JSON', () => {
    expect(JSON.parse(signalJson({ rate: 10, first: 7, frames }))).toEqual({
      framesPerSecond: 10,
      frames: [
        { frame: 7, lanes: { x: [0.5, 1], y: [2, 3] } },
        { frame: 8, lanes: { x: [0.25, -1], y: [4, 5] } },
      ],
    });
  });

  test('is a channel of floats for each lane in WAV', () => {
    const wav = signalWav({ rate: 48000, first: 0, frames });
    const view = new DataView(wav.buffer);
    expect([view.getUint16(20, true), view.getUint16(22, true), view.getUint32(24, true)]).toEqual([
      3, 2, 48000,
    ]);
    expect(view.getUint32(40, true)).toBe(16);
    expect([44, 48, 52, 56].map((at) => view.getFloat32(at, true))).toEqual([0.5, 2, 0.25, 4]);
  });

  test('is a note that sounds while it is high in a MIDI file, which our own reader takes', () => {
    const gate = [0, 0.8, 0.8, 0, 0, 1].map((v) => signal([v]));
    const { events, seconds } = readMidiFile(
      signalMidi({ rate: 10, first: 0, frames: gate }, { bpm: 120, beatsPerBar: 4 }),
    );
    expect(events.map(({ event, seconds: at }) => [event.type, Math.round(at * 100) / 100])).toEqual([
      ['note', 0.1],
      ['note', 0.3],
      ['note', 0.5],
      ['note', 0.6],
    ]);
    expect(seconds).toBeCloseTo(0.6, 2);
  });

  test('is copied, since buffers are written again', () => {
    const source = signal([1]);
    const kept = copyOf(source);
    source.lanes[0].samples[0] = 9;
    expect(kept.lanes[0].samples[0]).toBe(1);
  });
});

describe('a shape as a file', () => {
  const ball = ballShape(0.5, 6, 4);

  test('has its points, normals and faces in OBJ, counted from 1', () => {
    const lines = shapeObj(ball).trim().split('\n');
    const of = (word: string): string[] => lines.filter((line) => line.startsWith(`${word} `));
    expect([of('v').length, of('vn').length, of('f').length]).toEqual([
      ball.count,
      ball.count,
      ball.triangles.length / 3,
    ]);
    const corners = of('f').flatMap((line) => line.match(/\d+(?=\/)/g)!.map(Number));
    expect(Math.min(...corners)).toBe(1);
    expect(Math.max(...corners)).toBe(ball.count);
  });

  test('says in PLY how much there is of everything', () => {
    const colours = new Float32Array(4 * ball.count).fill(0.5);
    const text = shapePly({ ...ball, colours });
    expect(text).toContain(`element vertex ${ball.count}\n`);
    expect(text).toContain(`element face ${ball.triangles.length / 3}\n`);
    const body = text.split('end_header\n')[1].trim().split('\n');
    expect(body).toHaveLength(ball.count + ball.triangles.length / 3);
    expect(body[0].split(' ')).toHaveLength(10);
    expect(body[0].endsWith('128 128 128 128')).toBe(true);
  });
});

describe('a patch as a file', () => {
  const show = makeShow(catalogue, 'Notes');
  const [scene] = show.scenes;
  const noise = addNode(scene, catalogue, 'noise', [0, 0]);
  const levels = addNode(scene, catalogue, 'levels', [200, 0]);
  connect(scene, catalogue, noise, levels, 'picture');
  scene.nodes[noise].name = 'Wind & <Rain>';
  scene.nodes[noise].formulas = { 'place.x': 'time * 2' };

  test('names nodes, what was set and what they read, in Markdown', () => {
    const text = patchMarkdown(scene, catalogue);
    expect(text).toContain('**Wind & <Rain>** · Noise');
    expect(text).toContain('← **Wind & <Rain>**');
  });

  test('is a drawing with a card for each node and a line for each wire, whatever their names', () => {
    const svg = patchSvg(scene, catalogue);
    expect(svg.match(/<rect /g)).toHaveLength(Object.keys(scene.nodes).length);
    expect(svg.match(/<path /g)).toHaveLength(Object.keys(scene.wires).length);
    expect(svg).toContain('Wind &amp; &lt;Rain&gt;');
  });
});

test('frames that are none, or too many, are refused with a sentence', () => {
  const asked: DataRequest = { scene: 's1', node: 'n1', as: 'csv', first: 0, last: 10, fps: 60 };
  expect(() => checkData(asked)).not.toThrow();
  expect(() => checkData({ ...asked, last: -1 })).toThrow(/whole numbers/);
  expect(() => checkData({ ...asked, as: 'glb', last: 5000 })).toThrow(/600/);
  expect(() => checkData({ ...asked, as: 'wav', last: 6000 })).toThrow(/30 seconds/);
  expect(formatsOf('prop')).toEqual([]);
});
