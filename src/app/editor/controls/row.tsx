import type { ReactNode } from 'react';
import type { ControlSpec } from '../../../core/kind/controls';
import type { ControlValue, Scene } from '../../../core/document/types';

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

/** The name of a control, before its row. */
export function Label({ spec, reset }: Pick<RowProps, 'spec' | 'reset'>) {
  return (
    <span
      className="w-24 shrink-0 truncate"
      title={`${spec.help} Double-click to reset.`}
      onDoubleClick={reset}
    >
      {spec.label}
    </span>
  );
}

/** A row of one line: the name, then what changes the control. */
export function Row({
  spec,
  control,
  reset,
  children,
}: Pick<RowProps, 'spec' | 'control' | 'reset'> & { children: ReactNode }) {
  return (
    <div className="flex min-h-7 items-center gap-2" data-part={control}>
      <Label spec={spec} reset={reset} />
      {children}
    </div>
  );
}

/** A row whose control is a button. */
export function ButtonRow({
  children,
  onPress,
  ...row
}: Pick<RowProps, 'spec' | 'control' | 'reset'> & { children: ReactNode; onPress(): void }) {
  return (
    <Row {...row}>
      <button type="button" className="btn btn-xs border edge bg-base-100" onClick={onPress}>
        {children}
      </button>
    </Row>
  );
}
