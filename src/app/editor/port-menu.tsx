import { Command } from 'cmdk';
import { useState } from 'react';
import type { PortChoice } from './port-choices';

/** Choices above which there is a field to find one. */
const manyChoices = 8;

/** Asks which port of a card a wire dropped on it is meant for. */
export default function PortMenu({
  at,
  name,
  choices,
  onChoose,
  onClose,
}: {
  at: readonly [number, number];
  name: string;
  choices: readonly PortChoice[];
  onChoose(port: string): void;
  onClose(): void;
}) {
  const [search, setSearch] = useState('');
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const found = choices.filter(({ label, hint }) => {
    const text = `${label} ${hint}`.toLowerCase();
    return words.every((word) => text.includes(word));
  });
  return (
    <div className="fixed inset-0 z-40" onPointerDown={onClose}>
      <Command
        label={`Ports of ${name}`}
        loop
        shouldFilter={false}
        className="absolute flex max-h-80 w-60 flex-col overflow-hidden rounded-md border edge bg-base-200 shadow-2xl outline-none"
        style={{ left: Math.min(at[0], innerWidth - 256), top: Math.min(at[1], innerHeight - 330) }}
        // Without a field to type in, the keys come to the list itself.
        ref={(box) => void (choices.length > manyChoices || box?.focus())}
        onPointerDown={(event) => event.stopPropagation()}
        onKeyDown={(event) => {
          if (event.key === 'Escape') onClose();
          event.stopPropagation();
        }}
      >
        <p className="heading px-3 pt-2 pb-1">Wire into {name}</p>
        {choices.length > manyChoices && (
          <Command.Input
            autoFocus
            value={search}
            onValueChange={setSearch}
            placeholder="Find an input or a control"
            className="h-8 w-full shrink-0 border-b edge bg-transparent px-3 outline-none!"
          />
        )}
        <Command.List className="min-h-0 grow overflow-y-auto p-1">
          {found.length === 0 && <p className="quiet px-2 py-1">No match</p>}
          {found.map(({ port, label, hint }) => (
            <Command.Item
              key={port}
              value={port}
              data-choice={port}
              title={hint}
              onSelect={() => onChoose(port)}
              className="cursor-pointer rounded px-2 py-0.5 data-[selected=true]:bg-base-300"
            >
              {label}
            </Command.Item>
          ))}
        </Command.List>
      </Command>
    </div>
  );
}
