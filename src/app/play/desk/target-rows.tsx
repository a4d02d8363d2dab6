import { Trash2 } from 'lucide-react';
import { numbersOfType, targetSpec } from '../../../core/desk/value';
import { partLabel } from '../../../core/kind/controls';
import type { DeskControl } from '../../../core/document/types';
import { catalogue } from '../../../nodes/catalogue';
import { useShow } from '../../data/show-store';
import { Figure, type EditControl } from './inspector-rows';

/** The controls of nodes that a desk control moves, each with its own ends and bend. */
export function TargetRows({ control, edit }: { control: DeskControl; edit: EditControl }) {
  const scenes = useShow((show) => show.scenes);
  const nameOf = (k: number): string => {
    const target = control.targets[k];
    const found = targetSpec({ scenes }, target, catalogue);
    const node = scenes.find(({ id }) => id === target.scene)?.nodes[target.node];
    return found && node ? `${node.name} · ${partLabel(found.spec, found.part)}` : 'gone';
  };
  const isFitted = numbersOfType[control.type] > 0 && control.type !== 'chip';
  return (
    <>
      {control.targets.map((target, k) => (
        <div key={`${target.node} ${target.part}`} className="rounded bg-base-100 p-1">
          <div className="flex items-center">
            <span className="min-w-0 grow truncate text-2xs">{nameOf(k)}</span>
            {control.targets.length > 1 && (
              <button
                type="button"
                className="quiet px-1"
                aria-label={`Take ${nameOf(k)} off`}
                onClick={() => edit((one) => void one.targets.splice(k, 1))}
              >
                <Trash2 size={11} />
              </button>
            )}
          </div>
          {isFitted && (
            <div className="flex gap-1">
              {([0, 1] as const).map((end) => (
                <Figure
                  key={end}
                  label={`${nameOf(k)} at the ${end ? 'high' : 'low'} end`}
                  value={target.to[end]}
                  set={(v) => edit((one) => void (one.targets[k].to[end] = v), `to ${k} ${end}`)}
                />
              ))}
              <Figure
                label={`Bend of ${nameOf(k)}`}
                value={target.bend}
                min={0.05}
                max={20}
                set={(v) => edit((one) => void (one.targets[k].bend = v), `bend ${k}`)}
              />
            </div>
          )}
        </div>
      ))}
    </>
  );
}
