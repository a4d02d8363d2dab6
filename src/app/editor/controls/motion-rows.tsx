import { ArrowUp, Plus, Workflow, X } from 'lucide-react';
import { rangeOf } from '../../../core/kind/controls';
import { kindOf } from '../../../core/kind/kind';
import { setMotions } from '../../../core/show/edit';
import { freshMotion } from '../../../core/document/motions';
import { motionToNode } from '../../../core/show/motion-node';
import type { Motion, Stop } from '../../../core/document/types';
import { catalogue } from '../../../nodes/catalogue';
import { choose } from '../../data/session';
import { editScene, endGesture } from '../../data/show-store';
import { ScrubNumber } from '../../parts/scrub-number';
import { SelectField } from '../../parts/field';
import GradientEditor from './gradient-editor';
import { sceneOfPlace } from '../../../core/module/place';
import type { PartPlace } from './part-place';

type Type = Motion['type'];

/** One setting of a motion: a number, a choice, a flag, or the signal it waits for. */
type Setting = { key: string; label: string } & (
  | { form: 'number'; step: number; min?: number; unit?: string }
  | { form: 'choice'; options: readonly (readonly [string, string])[] }
  | { form: 'flag' }
  | { form: 'signal' }
  | { form: 'gradient' }
);

interface Spoken {
  label: string;
  help: string;
  /** Lines of settings under the first, with the words before them. */
  lines: readonly (readonly [string, readonly Setting[]])[];
}

const seconds = (key: string, label: string): Setting => ({
  key,
  label,
  form: 'number',
  step: 0.01,
  min: 0,
  unit: 's',
});
const seed: Setting = { key: 'seed', label: 'seed', form: 'number', step: 1 };

const wayOf: Setting = {
  key: 'way',
  label: 'way',
  form: 'choice',
  options: [
    ['once', 'Once'],
    ['round', 'Round and round'],
    ['toAndFro', 'To and fro'],
  ],
};
const lengthIn: Setting = {
  key: 'unit',
  label: 'length in',
  form: 'choice',
  options: [
    ['seconds', 'seconds'],
    ['beats', 'beats'],
    ['loop', 'loops'],
  ],
};

const spoken: Readonly<Record<Type, Spoken>> = {
  swing: {
    label: 'Swing',
    help: 'A wave around the value.',
    lines: [
      [
        'Shape, phase',
        [
          {
            key: 'shape',
            label: 'shape',
            form: 'choice',
            options: [
              ['sine', 'Sine'],
              ['triangle', 'Triangle'],
              ['square', 'Square'],
              ['ramp', 'Ramp'],
            ],
          },
          { key: 'phase', label: 'phase', form: 'number', step: 0.01 },
        ],
      ],
      [
        'Rate',
        [
          { key: 'rate', label: 'rate', form: 'number', step: 0.01, min: 0 },
          {
            key: 'unit',
            label: 'rate in',
            form: 'choice',
            options: [
              ['hertz', 'a second'],
              ['beats', 'beats each'],
              ['loop', 'a loop'],
            ],
          },
        ],
      ],
    ],
  },
  wander: {
    label: 'Wander',
    help: 'Smooth unrest around the value.',
    lines: [['Speed, seed', [{ key: 'speed', label: 'speed', form: 'number', step: 0.01, min: 0 }, seed]]],
  },
  colours: {
    label: 'Colours',
    help: 'A way through the colours of a gradient; 1 covers the colour of the hand.',
    lines: [
      ['Colours', [{ key: 'stops', label: 'stops', form: 'gradient' }]],
      ['Way', [wayOf]],
      [
        'Starts, takes',
        [
          { key: 'start', label: 'start', form: 'number', step: 0.1 },
          { key: 'length', label: 'length', form: 'number', step: 0.1, min: 0 },
          lengthIn,
        ],
      ],
    ],
  },
  ramp: {
    label: 'Ramp',
    help: 'From the value to so far above it.',
    lines: [
      ['Way', [wayOf, { key: 'eased', label: 'eased', form: 'flag' }]],
      ['Takes', [{ key: 'length', label: 'length', form: 'number', step: 0.1, min: 0 }, lengthIn]],
    ],
  },
  walk: {
    label: 'Walk',
    help: 'Random steps, never further than this.',
    lines: [
      [
        'Rate, seed',
        [
          { key: 'rate', label: 'rate', form: 'number', step: 0.1, min: 0, unit: '/s' },
          seed,
          { key: 'smooth', label: 'smooth', form: 'flag' },
        ],
      ],
    ],
  },
  hit: {
    label: 'Hit',
    help: 'Jumps so far when a signal fires, and comes back.',
    lines: [
      ['Fired by', [{ key: 'trigger', label: 'trigger', form: 'signal' }]],
      ['Up, back', [seconds('attack', 'attack'), seconds('decay', 'decay')]],
    ],
  },
  follow: {
    label: 'Follow',
    help: 'Lets all above come softly; 0 not at all, 1 in full.',
    lines: [['Rise, fall', [seconds('rise', 'rise'), seconds('fall', 'fall')]]],
  },
};

/** A colour as a whole takes its own motion, numbers take all others. */
const forColours: readonly Type[] = ['colours'];
const forNumbers = (Object.keys(spoken) as Type[]).filter((type) => !forColours.includes(type));

function SettingField({
  scene,
  name,
  setting,
  value,
  signals,
  onChange,
}: {
  scene: string;
  name: string;
  setting: Setting;
  value: unknown;
  signals: readonly (readonly [string, string])[];
  onChange(value: unknown, gesture: boolean): void;
}) {
  const label = `${name} ${setting.label}`;
  switch (setting.form) {
    case 'number':
      return (
        <ScrubNumber
          label={label}
          value={Number(value)}
          step={setting.step}
          fine={setting.step / 10}
          min={setting.min}
          unit={setting.unit}
          className="w-16"
          onChange={(v) => onChange(v, true)}
          onDone={endGesture}
        />
      );
    case 'choice':
      return (
        <SelectField
          label={label}
          value={String(value)}
          options={setting.options}
          onChange={(v) => onChange(v, false)}
        />
      );
    case 'signal':
      return (
        <SelectField
          label={label}
          value={value === null ? '' : String(value)}
          options={[['', 'nothing yet'], ...signals]}
          className="grow"
          onChange={(v) => onChange(v || null, false)}
        />
      );
    case 'gradient':
      return (
        <div className="min-w-0 grow">
          <GradientEditor
            label={label}
            scene={scene}
            stops={value as Stop[]}
            onChange={(v) => onChange(v, true)}
            onDone={endGesture}
          />
        </div>
      );
    case 'flag':
      return (
        <label className="flex items-center gap-1">
          <input
            type="checkbox"
            aria-label={label}
            className="checkbox checkbox-xs"
            checked={Boolean(value)}
            onChange={(e) => onChange(e.target.checked, false)}
          />
          {setting.label}
        </label>
      );
  }
}

/** The motions that lie on one part of a control, in the order they are laid on, and the way to more. */
export default function MotionRows({ place }: { place: PartPlace }) {
  const { scene, node, control, part, spec } = place;
  const types = spec.type === 'colour' && part === control ? forColours : forNumbers;
  const motions = scene.nodes[node].motions[part] ?? [];
  const range = rangeOf(spec);
  const put = (next: Motion[], key: string | null = null): void => {
    editScene(scene.id, (draft) => setMotions(draft, node, part, next), key && `${node} ${part} ${key}`);
  };
  const change = (index: number, key: string, value: unknown, gesture: boolean): void =>
    put(
      motions.map((motion, k) => (k === index ? { ...motion, [key]: value } : motion)),
      gesture ? `motion ${index} ${key}` : null,
    );
  const signals = Object.values(scene.nodes)
    .filter((n) => n.id !== node && kindOf(catalogue, n)?.output === 'signal')
    .map((n) => [n.id, n.name] as const);
  const inScene = Object.values(scene.nodes).reduce(
    (sum, n) => sum + Object.values(n.motions).flat().length,
    0,
  );
  return (
    <>
      {motions.map((motion, k) => {
        const { label, help, lines } = spoken[motion.type];
        const step =
          motion.type === 'follow' || motion.type === 'colours' ? 0.01 : (range[1] - range[0]) / 400;
        return (
          <div
            key={k}
            className="grid grid-cols-[5.25rem_1fr] items-center gap-x-2 gap-y-1"
            data-motion={motion.type}
            title={help}
          >
            <label className="flex items-center gap-1.5">
              <input
                type="checkbox"
                aria-label={`${label} on`}
                className="checkbox checkbox-xs"
                checked={motion.on}
                onChange={(e) => change(k, 'on', e.target.checked, false)}
              />
              {label}
            </label>
            <div className="flex items-center gap-1">
              <ScrubNumber
                label={`${label} amount`}
                value={motion.amount}
                step={step}
                fine={step / 10}
                className="w-16"
                onChange={(amount) => change(k, 'amount', amount, true)}
                onDone={endGesture}
              />
              <span className="grow" />
              {k > 0 && (
                <button
                  type="button"
                  className="tool"
                  aria-label={`Move ${label} up`}
                  title="Lay it on before the one above"
                  onClick={() => put(motions.with(k - 1, motion).with(k, motions[k - 1]))}
                >
                  <ArrowUp size={13} />
                </button>
              )}
              {motion.type !== 'follow' && motion.type !== 'colours' && (
                <button
                  type="button"
                  className="tool"
                  aria-label={`Turn ${label} into a node`}
                  title="Turn it into a node that is wired to this control"
                  onClick={() => {
                    const made = editScene(scene.id, (draft) =>
                      motionToNode(draft, catalogue, node, part, k),
                    );
                    if (made) choose([made]);
                  }}
                >
                  <Workflow size={13} />
                </button>
              )}
              <button
                type="button"
                className="tool"
                aria-label={`Remove ${label}`}
                onClick={() => put(motions.filter((_, other) => other !== k))}
              >
                <X size={13} />
              </button>
            </div>
            {lines.map(([words, settings]) => (
              <div key={words} className="contents">
                <span className="quiet">{words}</span>
                <div className="flex items-center gap-1">
                  {settings.map((setting) => (
                    <SettingField
                      key={setting.key}
                      scene={sceneOfPlace(place.scene.id)}
                      name={label}
                      setting={setting}
                      value={(motion as unknown as Record<string, unknown>)[setting.key]}
                      signals={signals}
                      onChange={(value, gesture) => change(k, setting.key, value, gesture)}
                    />
                  ))}
                </div>
              </div>
            ))}
          </div>
        );
      })}
      <div className="flex flex-wrap items-center gap-0.5" role="group" aria-label="Add a motion">
        <Plus size={13} className="quiet" />
        {types.map((type) => (
          <button
            key={type}
            type="button"
            className="tool px-1!"
            aria-label={`Add ${spoken[type].label}`}
            title={spoken[type].help}
            onClick={() => put([...motions, freshMotion(type, range, inScene + 1)])}
          >
            {spoken[type].label}
          </button>
        ))}
      </div>
    </>
  );
}
