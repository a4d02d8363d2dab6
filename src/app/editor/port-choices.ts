import { partLabel, partName, partsOf } from '../../core/kind/controls';
import { takes, type Carries, type Kind } from '../../core/kind/kind';

export interface PortChoice {
  port: string;
  label: string;
  hint: string;
}

/** Everything on a node that a wire of that kind can go to. */
export function portChoices(kind: Kind, carries: Carries): PortChoice[] {
  const inputs = Object.entries(kind.inputs)
    .filter(([, spec]) => takes(spec, carries))
    .map(([port, spec]) => ({ port, label: spec.label, hint: spec.help }));
  if (carries !== 'signal') return inputs;
  const controls = Object.entries(kind.controls).flatMap(([control, spec]) => {
    const parts = partsOf(spec);
    const whole = parts.length ? [{ port: control, label: spec.label, hint: spec.help }] : [];
    if (parts.length < 2) return whole;
    return [
      ...whole,
      ...parts.map((part, k) => ({
        port: partName(control, part),
        label: partLabel(spec, k),
        hint: spec.help,
      })),
    ];
  });
  return [...inputs, ...controls];
}
