import type { DeskControl } from '../../../core/document/types';
import { endGesture } from '../../data/show-store';
import { ScrubNumber } from '../../parts/scrub-number';

/** Changes a desk control. Edits with the same `gesture` that follow each other are undone together. */
export type EditControl = (change: (control: DeskControl) => void, gesture?: string) => void;

/** A labelled row of the settings. */
export const Line = ({ label, children }: { label: string; children: React.ReactNode }) => (
  <div className="flex min-h-7 items-center gap-1.5">
    <span className="quiet w-14 shrink-0 text-2xs">{label}</span>
    {children}
  </div>
);

/** A number of them. */
export function Figure({
  label,
  value,
  step = 0.01,
  min,
  max,
  unit,
  set,
}: {
  label: string;
  value: number;
  step?: number;
  min?: number;
  max?: number;
  unit?: string;
  set(value: number): void;
}) {
  return (
    <ScrubNumber
      label={label}
      value={value}
      step={step}
      fine={step / 10}
      min={min}
      max={max}
      unit={unit}
      className="min-w-0 flex-1"
      onChange={set}
      onDone={endGesture}
    />
  );
}
