import { useEffect, useRef } from 'react';
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

/** Asks which port of a card a wire dropped on it is meant for. */
export function PortMenu({
  at,
  name,
  choices,
  onChoose,
  onClose,
}: {
  at: readonly [number, number];
  name: string;
  choices: PortChoice[];
  onChoose(port: string): void;
  onClose(): void;
}) {
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => list.current?.querySelector('button')?.focus(), []);
  return (
    <div className="fixed inset-0 z-40" onPointerDown={onClose}>
      <div
        ref={list}
        role="menu"
        aria-label={`Ports of ${name}`}
        className="absolute max-h-80 w-56 overflow-y-auto rounded-md border edge bg-base-200 p-1 shadow-2xl"
        style={{ left: Math.min(at[0], innerWidth - 240), top: Math.min(at[1], innerHeight - 330) }}
        onPointerDown={(e) => e.stopPropagation()}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Escape') onClose();
          const buttons = [...list.current!.querySelectorAll('button')];
          const next =
            buttons.indexOf(document.activeElement as HTMLButtonElement) +
            (e.key === 'ArrowDown' ? 1 : e.key === 'ArrowUp' ? -1 : 0);
          if (e.key.startsWith('Arrow')) buttons[(next + buttons.length) % buttons.length]?.focus();
        }}
      >
        <p className="heading px-2 py-1">Wire into {name}</p>
        {choices.map(({ port, label, hint }) => (
          <button
            key={port}
            type="button"
            role="menuitem"
            data-choice={port}
            title={hint}
            className="block w-full rounded px-2 py-0.5 text-left hover:bg-base-300 focus:bg-base-300"
            onClick={() => onChoose(port)}
          >
            {label}
          </button>
        ))}
      </div>
    </div>
  );
}
