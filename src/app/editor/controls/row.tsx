import type { ReactNode } from 'react';
import type { ControlSpec } from '../../../core/kind/controls';
import type { ControlValue, Scene } from '../../../core/document/types';
import { ControlName } from './control-name';

/** What the row of a control is given. `T`: the type of the control. */
export interface RowProps<T extends ControlSpec['type'] = ControlSpec['type']> {
  scene: Scene;
  node: string;
  control: string;
  spec: Extract<ControlSpec, { type: T }>;
  /** The stored value, or the default. */
  value: ControlValue;
  /** The parts of it that are numbers. */
  numbers: readonly number[];
  /** Rows of these parts, each with what can drive it. */
  parts: readonly ReactNode[];
  /** Stores a value as a step of a longer gesture, and the end of that. */
  set(value: ControlValue): void;
  done(): void;
  /** Stores a value as an edit of its own. */
  once(value: ControlValue): void;
  /** Back to the default, and free of what drives it. */
  reset(): void;
}

type Named = Pick<RowProps, 'scene' | 'node' | 'control' | 'spec' | 'reset'>;

/** The name of a control, before its row. */
export function Label({ scene, node, control, spec, reset }: Named) {
  return (
    <ControlName
      scene={scene.id}
      node={node}
      control={control}
      part={control}
      spec={spec}
      label={spec.label}
      reset={reset}
    />
  );
}

/** A row of one line: the name, then what changes the control. */
export function Row({ children, ...named }: Named & { children: ReactNode }) {
  return (
    <div className="flex min-h-7 items-center gap-2" data-part={named.control}>
      <Label {...named} />
      {children}
    </div>
  );
}

/** A row whose control is a button. */
export function ButtonRow({ children, onPress, ...row }: Named & { children: ReactNode; onPress(): void }) {
  return (
    <Row {...row}>
      <button type="button" className="btn btn-xs border edge bg-base-100" onClick={onPress}>
        {children}
      </button>
    </Row>
  );
}
