import { Code, PencilRuler, Spline, Zap } from 'lucide-react';
import { lazy, Suspense, useState, type ComponentType } from 'react';
import type { ControlSpec } from '../../../core/kind/controls';
import { sceneOfPlace } from '../../../core/module/place';
import type { CurveLane, Stop } from '../../../core/document/types';
import { sessionStore } from '../../data/session';
import { liveStore } from '../../engine/live';
import { ColourRow } from './colour-row';
import { DeviceRow } from './device-row';
import { DraftValue } from './draft-value';
import { SelectField, TextField } from '../../parts/field';
import { FileRow } from './file-row';
import { KeyField } from './key-field';
import { OpenText } from './open-text';
import { ButtonRow, Label, Row, type RowProps } from './row';

const GradientEditor = lazy(() => import('./gradient-editor'));

const NumberRows = ({ parts }: Pick<RowProps, 'parts'>) => <>{parts}</>;

const ToggleRow = (props: RowProps<'toggle'>) => (
  <Row {...props}>
    <input
      type="checkbox"
      aria-label={props.spec.label}
      className="toggle toggle-xs toggle-primary"
      checked={props.numbers[0] > 0.5}
      onChange={(e) => props.once(e.target.checked)}
    />
  </Row>
);

const TriggerRow = (props: RowProps<'button'>) => (
  <ButtonRow {...props} onPress={() => props.once(props.numbers[0] + 1)}>
    <Zap size={13} /> {props.spec.label}
  </ButtonRow>
);

const CurvesRow = (props: RowProps<'curves'>) => {
  const lanes = (props.value as CurveLane[]).length;
  return (
    <ButtonRow
      {...props}
      onPress={() =>
        sessionStore.setState({ benchOpen: true, benchTab: 'curves', benchControl: props.control })
      }
    >
      <Spline size={13} /> Draw {lanes > 1 ? `${lanes} lanes` : ''}
    </ButtonRow>
  );
};

const CodeRow = (props: RowProps<'code'>) => (
  <ButtonRow {...props} onPress={() => sessionStore.setState({ benchOpen: true, benchTab: 'code' })}>
    <Code size={13} /> Write code
  </ButtonRow>
);

function ChoiceRow(props: RowProps<'choice'>) {
  const { scene, node, control, spec, value, once } = props;
  const hasDraft = scene.nodes[node].draft?.[control] !== undefined;
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <Row {...props}>
        <SelectField
          label={spec.label}
          value={String(value)}
          options={Object.entries(spec.options)}
          className="min-w-0 grow"
          onChange={once}
        />
        <button
          type="button"
          className={`tool px-1 ${hasDraft ? 'text-primary' : 'quiet'}`}
          aria-expanded={isOpen}
          aria-label={`A value of ${spec.label} for work`}
          title="A second value for work, which the stage never has"
          onClick={() => setOpen(!isOpen)}
        >
          <PencilRuler size={12} />
        </button>
      </Row>
      {isOpen && <DraftValue scene={scene} node={node} control={control} spec={spec} value={value} />}
    </>
  );
}

const GradientRow = (props: RowProps<'gradient'>) => (
  <div data-part={props.control}>
    <Label {...props} />
    <Suspense fallback={<div className="h-18" />}>
      <GradientEditor
        label={props.spec.label}
        scene={sceneOfPlace(props.scene.id)}
        stops={props.value as Stop[]}
        onChange={props.set}
        onDone={props.done}
      />
    </Suspense>
  </div>
);

const TextRow = (props: RowProps<'text'>) => {
  const { spec, value, once } = props;
  return (
    <Row {...props}>
      <TextField label={spec.label} value={String(value)} lines={spec.lines} onChange={once} />
      {spec.opens && <OpenText label={spec.label} accepts={spec.opens} onOpen={once} />}
    </Row>
  );
};

/** Numbers out of a text; what is no number is left out. */
const numbersIn = (text: string): number[] =>
  text
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(Number)
    .filter(Number.isFinite);

const NumbersRow = (props: RowProps<'numbers'>) => (
  <Row {...props}>
    <TextField
      label={props.spec.label}
      mono
      value={(props.value as number[]).join(' ')}
      onChange={(text) => props.once(numbersIn(text))}
    />
  </Row>
);

const FileControl = (props: RowProps<'file'>) => (
  <FileRow label={<Label {...props} />} spec={props.spec} value={String(props.value)} onChange={props.once} />
);

const DeviceControl = (props: RowProps<'device'>) => (
  <DeviceRow
    label={<Label {...props} />}
    spec={props.spec}
    value={String(props.value)}
    onChange={props.once}
  />
);

const KeyRow = (props: RowProps<'key'>) => (
  <Row {...props}>
    <KeyField label={props.spec.label} value={String(props.value)} onChange={props.once} />
  </Row>
);

const FormulaRow = (props: RowProps<'formula'>) => {
  const { scene, node, spec, control, value, set, done } = props;
  const fault = liveStore((s) => s.faults[scene.id]?.[node]);
  return (
    <div data-part={control} className="py-1">
      <Label {...props} />
      <TextField
        label={spec.label}
        value={String(value)}
        lines={spec.lanes ? 4 : 1}
        mono
        live
        invalid={Boolean(fault)}
        className="mt-1"
        onChange={set}
        onDone={done}
      />
      <p className="quiet mt-0.5 text-2xs">{spec.help}</p>
    </div>
  );
};

/** The row of each type of control. A new type has to be given one here, or this does not compile. */
export const rowOfType: { [T in ControlSpec['type']]: ComponentType<RowProps<T>> } = {
  number: NumberRows,
  whole: NumberRows,
  angle: NumberRows,
  point: NumberRows,
  vector: NumberRows,
  toggle: ToggleRow,
  button: TriggerRow,
  choice: ChoiceRow,
  colour: ColourRow,
  gradient: GradientRow,
  curves: CurvesRow,
  text: TextRow,
  numbers: NumbersRow,
  file: FileControl,
  device: DeviceControl,
  code: CodeRow,
  key: KeyRow,
  formula: FormulaRow,
};
