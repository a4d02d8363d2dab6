import { PencilRuler } from 'lucide-react';
import { limit, type ControlSpec } from '../../../core/kind/controls';
import { setDraft } from '../../../core/show/edit';
import type { ControlValue, Scene } from '../../../core/document/types';
import { editScene, endGesture } from '../../data/show-store';
import { SelectField } from '../../parts/field';
import { ScrubNumber } from '../../parts/scrub-number';

/** Types of controls that can carry a second value for work. */
const drafted: ReadonlySet<ControlSpec['type']> = new Set(['number', 'whole', 'angle', 'choice']);

export const canDraft = (spec: ControlSpec): boolean => drafted.has(spec.type);

/** A second value for work: fewer copies, steps, octaves while one builds; the stage never has it. */
export function DraftValue({
  scene,
  node,
  control,
  spec,
  value,
}: {
  scene: Scene;
  node: string;
  control: string;
  spec: ControlSpec;
  value: ControlValue;
}) {
  const draft = scene.nodes[node].draft?.[control];
  const has = draft !== undefined;
  const set = (to: ControlValue | null): void =>
    void editScene(scene.id, (d) => setDraft(d, node, control, to), `${node} ${control} draft`);
  const range = 'range' in spec ? spec.range : ([0, 1] as const);
  const step = spec.type === 'whole' ? 0.25 : (range[1] - range[0]) / 300;
  return (
    <div className="flex h-7 items-center gap-2" data-draft={control}>
      <label
        className="flex w-24 shrink-0 items-center gap-1.5"
        title="Used while only the desk looks on; the stage, outputs and exports always have the other"
      >
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          aria-label={`${spec.label} has a value for work`}
          checked={has}
          onChange={(event) => {
            set(event.target.checked ? value : null);
            endGesture();
          }}
        />
        <PencilRuler size={11} /> For work
      </label>
      {has && spec.type === 'choice' && (
        <SelectField
          label={`${spec.label} for work`}
          value={String(draft)}
          options={Object.entries(spec.options)}
          className="grow"
          onChange={(to) => {
            set(to);
            endGesture();
          }}
        />
      )}
      {has && typeof draft === 'number' && (
        <ScrubNumber
          label={`${spec.label} for work`}
          value={draft}
          step={step}
          fine={step / 10}
          className="w-20"
          onChange={(v) => set(limit(spec, v))}
          onDone={endGesture}
        />
      )}
    </div>
  );
}
