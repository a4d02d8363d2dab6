import { code, text } from '../../core/kind/controls';
import { imageKind, type ImageKind, type Kind } from '../../core/kind/kind';
import { mostTurns } from '../../core/shader/loop-budget';
import { OwnShaderError, readOwnShader } from '../../core/shader/own-shader';
import type { ControlValue } from '../../core/document/types';
import { alphaGlsl, brightnessGlsl, outsideGlsl } from '../glsl/colour';
import { hashGlsl, noiseGlsl } from '../glsl/noise';

const first = `/*
{
  "pictures": { "under": "Under" },
  "controls": {
    "rings": { "type": "number", "default": 9, "range": [1, 40] },
    "tint": { "type": "colour", "default": [1, 0.62, 0.2, 1] },
    "speed": { "type": "number", "default": 0.4, "range": [-2, 2], "unit": "/s" }
  }
}
*/
vec4 paint(vec2 place) {
  vec2 c = (place - 0.5) * vec2(aspect, 1.0);
  float wave = 0.5 + 0.5 * cos(6.2832 * (length(c) * rings - time * speed));
  float grain = noise3(vec3(c * 6.0, time * 0.2));
  vec4 light = premultiplied(tint) * wave * (0.75 + 0.25 * grain);
  return light + under(place) * (1.0 - light.a);
}
`;

const fixed = {
  code: code({
    label: 'Code',
    help: 'A function of place, and before it a comment with the pictures and controls it needs.',
    default: first,
  }),
  good: text({
    label: 'Last good code',
    help: 'What plays while the code is being written.',
    default: first,
    shownIf: () => false,
  }),
};

/** The kinds of the texts read last: the same text has to give the very same kind. */
const known = new Map<string, Kind>();
const mostKnown = 200;

function made(playing: string, problem: string | null): Kind {
  const own = readOwnShader(playing);
  const kind: ImageKind = {
    ...(base as ImageKind),
    inputs: own.inputs,
    controls: { ...fixed, ...own.controls },
    moves: () => own.moves,
    problem: problem ?? undefined,
    paint: {
      type: 'shader',
      alone: true,
      helpers: [
        hashGlsl,
        noiseGlsl,
        alphaGlsl,
        brightnessGlsl,
        outsideGlsl,
        `int ${own.budget} = ${mostTurns};`,
      ],
      derived: { time: 'float', beat: 'float', frame: 'float' },
      derive: (_c, moment) => ({ time: moment.time, beat: moment.beat, frame: moment.frame }),
      code: own.code,
      body: 'return paint(p);',
    },
  };
  return kind as Kind;
}

/** The node as its text declares it. Where the text has a fault in its head, what played before goes on. */
function vary(controls: Readonly<Record<string, ControlValue>>): Kind {
  const typed = typeof controls.code === 'string' ? controls.code : first;
  const good = typeof controls.good === 'string' ? controls.good : first;
  const key = `${typed}\u0000${good}`;
  const before = known.get(key);
  if (before) return before;
  let kind: Kind;
  try {
    kind = made(typed, null);
  } catch (error) {
    if (!(error instanceof OwnShaderError)) throw error;
    try {
      kind = made(good, error.message);
    } catch {
      kind = made(first, error.message);
    }
  }
  if (known.size >= mostKnown) known.delete(known.keys().next().value!);
  known.set(key, kind);
  return kind;
}

const base = imageKind({
  id: 'shader',
  label: 'Shader',
  summary: 'A picture from your own GLSL: one function of place, with inputs of your own.',
  words: ['glsl', 'code', 'program', 'own', 'pixel code', 'custom', 'write'],
  inputs: {},
  controls: fixed,
  vary,
  paint: { type: 'shader', alone: true, body: 'return vec4(0.0);' },
});

export default base;
