import clsx from 'clsx';
import { SlidersVertical, SquareArrowOutUpRight } from 'lucide-react';
import { moduleAt, sceneAt } from '../../../core/module/open-place';
import { isChanged } from '../../../core/show/edit-controls';
import { placeAround } from '../../../core/module/place';
import { bringControlOut, takeControlIn } from '../../actions/module-actions';
import { onDesk } from '../../../core/desk/value';
import { canLieOnDesk } from '../../../core/show/edit-desk';
import type { ControlSpec } from '../../../core/kind/controls';
import { controlDrag, sendToDesk } from '../../actions/play-actions';
import { useShow } from '../../data/show-store';

interface Props {
  scene: string;
  node: string;
  control: string;
  /** The part that the row is of: the control itself, or one of its numbers. */
  part: string;
  spec: ControlSpec;
  label: string;
  driven?: boolean;
  reset(): void;
}

/** The name of a control before its row: dragged onto Play, or by its button, it goes to the desk. */
export function ControlName({ scene, node, control, part, spec, label, driven, reset }: Props) {
  const inModule = placeAround(scene) !== null;
  const isThere = useShow((show) => !inModule && onDesk(show, scene, node, control) !== null);
  const canLie = !inModule && canLieOnDesk(spec);
  const isOther = useShow((show) => isChanged(spec, sceneAt(show, scene)?.nodes[node]?.controls[control]));
  // A place and a colour are moved as a whole, a direction in space number by number.
  const wanted = spec.type === 'point' || spec.type === 'colour' ? control : part;
  return (
    <span
      className="group/name flex w-24 shrink-0 items-center"
      draggable={canLie}
      onDragStart={(event) =>
        event.dataTransfer.setData(controlDrag, JSON.stringify({ scene, node, part: wanted }))
      }
    >
      <span
        className={clsx('min-w-0 grow truncate', driven && 'text-primary')}
        title={`${spec.help}${isOther ? ' It is changed.' : ''} Double-click to reset.`}
        data-changed={isOther || undefined}
        onDoubleClick={reset}
      >
        {label}
        {isOther && (
          <span aria-hidden className="ml-1 inline-block size-1 rounded-full bg-primary align-middle" />
        )}
      </span>
      {canLie && (
        <button
          type="button"
          className={clsx(
            'shrink-0 rounded p-0.5',
            isThere
              ? 'text-primary'
              : 'quiet opacity-0 group-hover/name:opacity-100 focus-visible:opacity-100',
          )}
          aria-label={`${label} to the desk`}
          title={isThere ? `${label} is on the desk of Play` : 'To the desk: a control for it in Play'}
          disabled={isThere}
          onClick={() => sendToDesk(scene, node, wanted)}
        >
          <SlidersVertical size={11} />
        </button>
      )}
      {inModule && <BringOut {...{ scene, node, control, label }} />}
    </span>
  );
}

/** Inside of a module: makes a control one of the module itself. */
function BringOut({ scene, node, control, label }: Pick<Props, 'scene' | 'node' | 'control' | 'label'>) {
  const brought = useShow((show) =>
    moduleAt(show, scene)?.controls.find(({ targets }) =>
      targets.some((target) => target.node === node && target.control === control),
    ),
  );
  return (
    <button
      type="button"
      className={clsx(
        'shrink-0 rounded p-0.5',
        brought ? 'text-primary' : 'quiet opacity-0 group-hover/name:opacity-100 focus-visible:opacity-100',
      )}
      aria-label={`Bring ${label} out`}
      aria-pressed={brought !== undefined}
      title={
        brought
          ? `${brought.name} of the module sets it. Press to take it in again`
          : 'Brings it out: it becomes a control of the module'
      }
      onClick={() => (brought ? takeControlIn(scene, brought.id) : bringControlOut(scene, node, control))}
    >
      <SquareArrowOutUpRight size={11} />
    </button>
  );
}
