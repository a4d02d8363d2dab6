import { sceneAt } from '../../core/module/open-place';
import { Command } from 'cmdk';
import { useState } from 'react';
import { findNodes } from '../../core/show/find-nodes';
import { kindOf } from '../../core/kind/kind';
import { catalogue } from '../../nodes/catalogue';
import { useShow } from '../data/show-store';
import { wireColour } from './flow-model';

/** Finds a node of the show by its name, kind, formulas and values, and goes to it. */
export default function FindNode({
  scene,
  onChoose,
  onClose,
}: {
  /** The scene that is open. */
  scene: string;
  onChoose(scene: string, node: string): void;
  onClose(): void;
}) {
  const show = useShow((s) => s);
  const [search, setSearch] = useState('');
  const found = findNodes(show, catalogue, search, scene);
  return (
    <div
      className="absolute inset-0 z-40 flex items-start justify-center bg-black/40 pt-12"
      onPointerDown={onClose}
    >
      <Command
        label="Find a node"
        loop
        shouldFilter={false}
        className="flex max-h-[min(30rem,92%)] w-[30rem] max-w-[92%] flex-col overflow-hidden rounded-lg border edge bg-base-200 shadow-2xl"
        onPointerDown={(e) => e.stopPropagation()}
        onKeyDown={(e) => {
          if (e.key === 'Escape') onClose();
          e.stopPropagation();
        }}
      >
        <Command.Input
          autoFocus
          value={search}
          onValueChange={setSearch}
          placeholder="Find a node: its name, kind, formula or value"
          className="h-11 w-full shrink-0 border-b edge bg-transparent px-4 text-base outline-none!"
        />
        <Command.List className="min-h-0 grow overflow-y-auto p-1.5">
          {search.trim() !== '' && found.length === 0 && <p className="quiet p-4">No match</p>}
          {found.map(({ scene: id, node, detail }) => {
            const of = sceneAt(show, id)!;
            const kind = kindOf(catalogue, of.nodes[node]);
            return (
              <Command.Item
                key={`${id} ${node}`}
                value={`${id} ${node}`}
                onSelect={() => onChoose(id, node)}
                className="flex cursor-pointer items-baseline gap-2.5 rounded px-2.5 py-1 data-[selected=true]:bg-base-300"
              >
                <span
                  className="h-2 w-2 shrink-0 rounded-full"
                  style={{ background: kind ? wireColour(kind.output) : 'currentColor' }}
                />
                <span className="shrink-0 font-semibold">{of.nodes[node].name}</span>
                <span className="quiet min-w-0 grow truncate text-2xs">{detail ?? kind?.label}</span>
                {id !== scene && <span className="shrink-0 text-2xs text-primary">{of.name}</span>}
              </Command.Item>
            );
          })}
        </Command.List>
      </Command>
    </div>
  );
}
