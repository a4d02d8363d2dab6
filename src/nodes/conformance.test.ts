import { describe, expect, test } from '@jest/globals';
import { partsOf, rangeOf, type ControlSpec } from '../core/kind/controls';
import type { DataPicture, GlslType, Kind, Sheet } from '../core/kind/kind';
import { FormulaError, parseFormula } from '../core/formula/parse';
import { ballShape } from '../core/shape/make';
import { idleInputs } from '../core/inputs/inputs';
import { SceneRun } from '../core/run/scene-run';
import { makeScene } from '../core/show/create';
import { addNode, connect } from '../core/show/edit';
import type { ControlValue, Scene } from '../core/document/types';
import { momentAt } from '../core/time/clock';
import { catalogue } from './catalogue';
import { oneStep } from '../core/time/feedback-steps';

const kinds = [...catalogue.values()].map((kind) => [kind.label, kind] as const);
const sources = {
  image: 'noise',
  signal: 'oscillator',
  shape: 'ball',
  prop: 'body',
  field: 'field-ball',
} as const;

/** Letters and models as they are once they have arrived. */
const resources = {
  letters: () => [[-0.5, -0.5, 0.5, -0.5, 0.5, 0.5, -0.5, 0.5]],
  model: () => ({
    parts: Array.from({ length: 16 }, () => ({ name: 'Part', shape: ballShape(1, 4, 6), picture: null })),
    pictures: [],
    notes: [],
  }),
};

/** The kind with something wired into every input, run for a few frames. */
function play(
  kind: Kind,
  controls: Record<string, ControlValue> = {},
  frames = 12,
  first = 0,
): { run: SceneRun; id: string } {
  const scene: Scene = makeScene(catalogue, 's1', 'Scene');
  const id = kind.output === 'image' && kind.isSceneOut ? 'n1' : addNode(scene, catalogue, kind.id, [0, 0]);
  Object.assign(scene.nodes[id].controls, controls);
  for (const [port, input] of Object.entries(kind.inputs)) {
    const source = addNode(scene, catalogue, sources[input.carries], [0, 0]);
    // A coarse ball is one as well, and takes a sixteenth of the time.
    if (input.carries === 'shape') Object.assign(scene.nodes[source].controls, { rings: 6, segments: 12 });
    if (sources[input.carries] === 'body')
      connect(scene, catalogue, addNode(scene, catalogue, 'ball', [0, 0]), source, 'shape');
    connect(scene, catalogue, source, id, port);
  }
  const run = new SceneRun(catalogue, null, resources);
  run.update(scene, [id]);
  for (let frame = first; frame < frames; frame++) {
    run.run({
      moment: momentAt(frame / 60, frame > first ? 1 / 60 : 0, 60, { bpm: 120, beatsPerBar: 4 }),
      live: idleInputs(),
      canvas: { width: 160, height: 90 },
      feedback: oneStep,
    });
  }
  return { run, id };
}

type Numbers = readonly ArrayLike<number>[];

/** What a node gave, in lists as it keeps them: there may be millions. */
function numbersGiven({ run, id }: { run: SceneRun; id: string }): Numbers {
  const node = run.runs.get(id)!;
  if (node.given) return node.given.lanes.map(({ samples }) => samples);
  if (node.shape) return [node.shape.positions, node.shape.normals, node.shape.uvs];
  return node.image ? [[node.image.width, node.image.height]] : [];
}

const countOf = (numbers: Numbers): number => numbers.reduce((sum, { length }) => sum + length, 0);

/** The least and the greatest; NaN if there is one among them. */
function boundsOf(numbers: Numbers): [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (const list of numbers)
    for (let k = 0; k < list.length; k++) {
      const value = list[k];
      // The only number that is not below infinity or there.
      if (!(value <= Infinity)) return [NaN, NaN];
      if (value < low) low = value;
      if (value > high) high = value;
    }
  return [low, high];
}

const areFinite = (numbers: Numbers): boolean =>
  countOf(numbers) === 0 || boundsOf(numbers).every(Number.isFinite);

const areSame = (a: Numbers, b: Numbers): boolean =>
  a.length === b.length &&
  a.every((list, k) => {
    if (list.length !== b[k].length) return false;
    for (let n = 0; n < list.length; n++) if (list[n] !== b[k][n]) return false;
    return true;
  });

const lengths: Readonly<Record<Exclude<GlslType, 'vec4list'>, number>> = {
  float: 1,
  vec2: 2,
  vec3: 3,
  vec4: 4,
  mat3: 9,
};

function checkDerived(derived: Readonly<Record<string, GlslType>>, values: Record<string, unknown>): void {
  expect(Object.keys(values).sort()).toEqual(Object.keys(derived).sort());
  for (const [name, type] of Object.entries(derived)) {
    const given = values[name];
    const list = typeof given === 'number' ? [given] : [...(given as number[])];
    if (type === 'vec4list') expect(list.length % 4).toBe(0);
    else expect([name, list.length]).toEqual([name, lengths[type]]);
    expect([name, list.every(Number.isFinite)]).toEqual([name, true]);
  }
}

function checkPicture({ width, height, rgba }: DataPicture): void {
  expect(rgba).toHaveLength(4 * width * height);
  expect(rgba.every(Number.isFinite)).toBe(true);
}

function checkSheet(sheet: Sheet<never, never>, work: never, controls: never): void {
  switch (sheet.from) {
    case 'numbers':
      checkPicture(sheet.fill(work));
      break;
    case 'clip':
      expect(Object.values(sheet.timing(work)).every((v) => typeof v !== 'number' || !Number.isNaN(v))).toBe(
        true,
      );
      break;
    case 'text':
      expect(sheet.lay(controls, 1)).toEqual(expect.objectContaining({ text: expect.any(String) }));
      break;
    case 'past': {
      const { frames, scale } = sheet.keep(controls);
      expect(frames).toBeGreaterThanOrEqual(1);
      expect(scale > 0 && scale <= 1).toBe(true);
      break;
    }
    case 'camera':
      expect(typeof sheet.device(controls)).toBe('string');
      break;
    case 'look':
    case 'file':
      break;
  }
}

/** Numbers of what a shot is to be drawn with, however deep they lie. */
const numbersIn = (value: unknown): number[] =>
  typeof value === 'number'
    ? [value]
    : typeof value === 'object' && value
      ? Object.values(value).flatMap(numbersIn)
      : [];

/** Runs what the engine asks of an image or field each frame, with what the node was given; gives how many hooks there were. */
function askHooks({ run, id }: { run: SceneRun; id: string }): number {
  const node = run.runs.get(id)!;
  const { kind } = node.plan;
  const controls = node.controls as never;
  let hooks = 0;
  if (kind.output === 'field' && kind.derive) {
    checkDerived(
      kind.derived ?? {},
      kind.derive(controls, momentAt(0.2, 1 / 60, 60, { bpm: 120, beatsPerBar: 4 })),
    );
    hooks++;
  }
  if (kind.output !== 'image') return hooks;
  const work = node.work! as never;
  const { moment } = node.work!;
  const { paint } = kind;
  if (paint.type === 'data') checkPicture(paint.fill(work));
  if (paint.type === 'shot' || paint.type === 'field') {
    const numbers = numbersIn(paint.settings(work));
    expect(numbers.length).toBeGreaterThan(0);
    expect(numbers.every(Number.isFinite)).toBe(true);
  }
  if (paint.type !== 'shader' && paint.type !== 'passes') return hooks + 1;
  if (paint.derive) {
    checkDerived(paint.derived ?? {}, paint.derive(controls, moment, 90, null));
    hooks++;
  }
  for (const sheet of Object.values(paint.sheets ?? {})) {
    checkSheet(sheet as never, work, controls);
    hooks++;
  }
  if (paint.type === 'passes') {
    const left = paint.passes.filter(({ skip }) => !skip?.(controls, 90, () => true));
    expect(left.length).toBeGreaterThan(0);
    for (const { scale } of left) {
      const share = scale?.(controls, 90) ?? 1;
      expect(share > 0 && share <= 1).toBe(true);
    }
    hooks++;
  }
  return hooks;
}

const mostCount = 1000;

/** The low and high end of a control, at its hard limits where it has them. */
function ends(spec: ControlSpec): ControlValue[] {
  const parts = partsOf(spec).length;
  if (spec.type === 'choice') return Object.keys(spec.options);
  if (spec.type === 'toggle') return [true, false];
  if (parts === 0 || !('range' in spec)) return [];
  const [low, high] = rangeOf(spec);
  // Counts are kept small enough to run in a test; the hard limit is what the interface holds them to.
  const values = [spec.min ?? low - (high - low), Math.min(spec.max ?? high + (high - low), mostCount), 0];
  return values.map((v) => (parts === 1 ? v : Array<number>(parts).fill(v)));
}

describe.each(kinds)('%s', (_label, kind) => {
  test('says what it is for, in full sentences', () => {
    expect(kind.id).toMatch(/^[a-z][a-z0-9-]*$/);
    expect(kind.summary).toMatch(/\.$/);
    expect(kind.words.length).toBeGreaterThanOrEqual(2);
    for (const spec of [...Object.values(kind.inputs), ...Object.values(kind.controls)]) {
      expect(spec.label.length).toBeGreaterThan(0);
      expect(spec.help).toMatch(/[.)]$/);
    }
    for (const port of Object.keys(kind.inputs)) expect(Object.keys(kind.controls)).not.toContain(port);
  });

  const ranged = Object.entries(kind.controls).flatMap(([name, spec]) =>
    'range' in spec ? [{ name, spec }] : [],
  );
  if (ranged.length)
    test('defaults lie within range and limits', () => {
      for (const { name, spec } of ranged) {
        const values: readonly number[] = Array.isArray(spec.default)
          ? (spec.default as readonly number[])
          : [Number(spec.default)];
        for (const value of values) {
          expect([name, value >= (spec.min ?? -Infinity) && value <= (spec.max ?? Infinity)]).toEqual([
            name,
            true,
          ]);
        }
        expect(spec.range[0]).toBeLessThan(spec.range[1]);
      }
    });

  const choices = Object.values(kind.controls).filter((spec) => spec.type === 'choice');
  if (choices.length)
    test('choices begin with one of their options', () => {
      for (const spec of choices) expect(Object.keys(spec.options)).toContain(spec.default);
    });

  test('gives finite results by default, the same every time', () => {
    const first = play(kind);
    const values = numbersGiven(first);
    expect(first.run.faults().get(first.id)).toBeUndefined();
    expect(areFinite(values)).toBe(true);
    if (kind.output !== 'prop' && kind.output !== 'field') expect(countOf(values)).toBeGreaterThan(0);
    expect(areSame(numbersGiven(play(kind)), values)).toBe(true);
    const isPainted = kind.output === 'image' && kind.paint.type !== 'shader';
    expect(askHooks(first)).toBeGreaterThanOrEqual(isPainted ? 1 : 0);
  });

  const hasEnds = Object.values(kind.controls).some((spec) => ends(spec).length);
  if (hasEnds)
    if (kind.output === 'signal' && kind.recalls === false)
      test('gives the same without the frames before', () => {
        expect(areSame(numbersGiven(play(kind, {}, 60, 59)), numbersGiven(play(kind, {}, 60)))).toBe(true);
      });

  test('stands the ends of every control', () => {
    for (const [name, spec] of Object.entries(kind.controls)) {
      for (const value of ends(spec)) {
        // A part that a model does not have is a fault, and said so.
        if (kind.id === 'model' && name === 'part' && Number(value) > 16) continue;
        const played = play(kind, { [name]: value });
        expect([name, value, played.run.faults().get(played.id)]).toEqual([name, value, undefined]);
        expect([name, value, areFinite(numbersGiven(played))]).toEqual([name, value, true]);
        askHooks(played);
      }
    }
  });

  if (kind.output === 'signal') {
    test('keeps to its natural range, at both ends', () => {
      const { run, id } = play(kind, {}, 90);
      const [low, high] = kind.naturalRange(run.runs.get(id)!.controls as never);
      expect(low).toBeLessThan(high);
      expect(Number.isFinite(low) && Number.isFinite(high)).toBe(true);
      const values = numbersGiven({ run, id });
      expect(countOf(values)).toBeGreaterThan(0);
      const [least, greatest] = boundsOf(values);
      expect(least).toBeGreaterThanOrEqual(low - 1e-4);
      expect(greatest).toBeLessThanOrEqual(high + 1e-4);
    });
  }

  if (kind.output === 'image' && (kind.paint.type === 'shader' || kind.paint.type === 'passes')) {
    const { paint } = kind;
    test('its shader asks only for controls and inputs it has', () => {
      const bodies = paint.type === 'shader' ? [paint.body] : paint.passes.map((pass) => pass.body);
      const passNames = paint.type === 'passes' ? paint.passes.map((pass) => pass.name) : [];
      const sheets = paint.sheets ?? {};
      for (const body of bodies) {
        for (const [, name] of body.matchAll(/\$([A-Za-z]\w*)/g))
          expect([...Object.keys(kind.controls), ...Object.keys(paint.derived ?? {})]).toContain(name);
        for (const [, name] of body.matchAll(/@([A-Za-z]\w*)/g))
          expect([...Object.keys(kind.inputs), ...Object.keys(sheets), ...passNames, 'previous']).toContain(
            name,
          );
        expect(body).toContain('return');
      }
      const used = bodies.join('\n');
      // Where a control is used outside of the shader's text: numbers derived from it, sheets made from it, variants.
      const code = paint.type === 'shader' ? (paint.code ?? '') : '';
      const sheetWords = Object.values(sheets).flatMap((sheet) => Object.values(sheet).map(String));
      // Letters are laid by functions that several kinds share, so what they read is seen only when they run.
      const asked = new Set<string>();
      const defaults = Object.fromEntries(
        Object.entries(kind.controls).map(([name, spec]) => [name, 'default' in spec ? spec.default : 0]),
      );
      const asking = new Proxy(defaults, {
        get(target, name) {
          asked.add(String(name));
          return target[String(name)];
        },
      });
      for (const sheet of Object.values(sheets)) if (sheet.from === 'text') sheet.lay(asking as never, 0);
      const derivedFrom = [paint.derive, kind.vary, kind.picks, kind.sizeFrom, code, ...sheetWords]
        .map(String)
        .join('\n');
      const scales = paint.type === 'passes' ? paint.passes.map((p) => p.scale?.toString() ?? '').join() : '';
      for (const name of Object.keys(kind.controls)) {
        if (name === 'amount' && paint.type === 'shader' && paint.wet) continue;
        expect([
          name,
          asked.has(name) || used.includes(`$${name}`) || derivedFrom.includes(name) || scales.includes(name),
        ]).toEqual([name, true]);
      }
    });
    const formulas = Object.values(kind.controls).filter((spec) => spec.type === 'formula');
    if (formulas.length)
      test('its formula controls can be read', () => {
        for (const spec of formulas) {
          expect(() => parseFormula(spec.default, (n) => spec.variables.includes(n))).not.toThrow();
          expect(() => parseFormula('nothing_of_that_name', (n) => spec.variables.includes(n))).toThrow(
            FormulaError,
          );
        }
      });
  }
});

test('no two kinds share a label', () => {
  expect(new Set(kinds.map(([label]) => label)).size).toBe(kinds.length);
});
