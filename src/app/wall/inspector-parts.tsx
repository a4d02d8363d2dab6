import { endGesture } from '../data/show-store';
import { Row } from '../parts/rows';
import { ScrubNumber } from '../parts/scrub-number';

export interface Form {
  step: number;
  min: number;
  max: number;
  unit?: string;
  digits?: number;
  /** What is shown for each of the value. */
  times?: number;
}

export const pixels: Form = { step: 1, min: -100000, max: 100000, digits: 1, unit: ' px' };
export const length: Form = { ...pixels, min: 1 };
export const percent: Form = { step: 0.1, min: 0, max: 100, digits: 1, unit: ' %', times: 100 };

/** A row of numbers that change one output. */
export function Numbers<T>({
  edit,
  label,
  names,
  form: { times = 1, ...form },
  values,
  set,
}: {
  edit(change: (one: T) => void, gesture: string): void;
  label: string;
  /** One for each value; null: the label says it all. */
  names: readonly string[] | null;
  form: Form;
  values: readonly number[];
  set(one: T, k: number, value: number): void;
}) {
  return (
    <Row label={label}>
      {values.map((value, k) => (
        <ScrubNumber
          key={k}
          label={names ? `${label} ${names[k]}` : label}
          value={value * times}
          {...form}
          fine={form.step / 10}
          className="min-w-0 flex-1"
          onChange={(v) => edit((one) => set(one, k, v / times), `${label} ${k}`)}
          onDone={endGesture}
        />
      ))}
    </Row>
  );
}
