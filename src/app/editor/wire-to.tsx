import { Command } from 'cmdk';
import { useState } from 'react';
import { carriedBy, kindOf } from '../../core/kind/kind';
import { connect, kindCarrying } from '../../core/show/edit';
import type { Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { choose } from '../data/session';
import { editScene } from '../data/show-store';
import { wireColour } from './flow-model';
import { portChoices } from './port-choices';

/** Most entries that are listed at a time. */
const mostShown = 120;

/** Wires what a node gives into a port of another, found by typing: wiring without a pointer. */
export default function WireTo({ scene, node, onClose }: { scene: Scene; node: string; onClose(): void }) {
  const [search, setSearch] = useState('');
  const source = scene.nodes[node];
  const kind = kindOf(catalogue, source);
  const outputs: (string | undefined)[] = kind ? [undefined, ...Object.keys(kind.sideOutputs ?? {})] : [];
  const all = outputs.flatMap((output) => {
    const carries = kind && carriedBy(kind, output);
    if (!carries) return [];
    return Object.values(scene.nodes).flatMap((target) => {
      const into = target.id === node ? undefined : kindCarrying(scene, catalogue, target, carries);
      return (into ? portChoices(into, carries) : []).map(({ port, label }) => ({
        key: `${output ?? ''} ${target.id} ${port}`,
        output,
        target,
        port,
        label,
        carries,
        from: output === undefined ? '' : `${kind.sideOutputs?.[output]?.label ?? ''} → `,
      }));
    });
  });
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const found = all
    .filter(({ target, label }) => {
      const text = `${target.name} ${label}`.toLowerCase();
      return words.every((word) => text.includes(word));
    })
    .slice(0, mostShown);
  return (
    <div
      className="absolute inset-0 z-40 flex items-start justify-center bg-black/40 pt-12"
      onPointerDown={onClose}
    >
      <Command
        label={`Wire ${source.name} into`}
        loop
        shouldFilter={false}
        className="flex max-h-[min(30rem,92%)] w-[30rem] max-w-[92%] flex-col overflow-hidden rounded-lg border edge bg-base-200 shadow-2xl"
        onPointerDown={(event) => event.stopPropagation()}
        onKeyDown={(event) => {
          if (event.key === 'Escape') onClose();
          event.stopPropagation();
        }}
      >
        <Command.Input
          autoFocus
          value={search}
          onValueChange={setSearch}
          placeholder={`Wire ${source.name} into… a node, a control`}
          className="h-11 w-full shrink-0 border-b edge bg-transparent px-4 text-base outline-none!"
        />
        <Command.List className="min-h-0 grow overflow-y-auto p-1.5">
          {found.length === 0 && (
            <p className="quiet p-4">Nothing takes it. Add what does, and wire it then.</p>
          )}
          {found.map(({ key, output, target, port, label, carries, from }) => (
            <Command.Item
              key={key}
              value={key}
              onSelect={() => {
                editScene(scene.id, (draft) => connect(draft, catalogue, node, target.id, port, output));
                choose([target.id]);
                onClose();
              }}
              className="flex cursor-pointer items-baseline gap-2.5 rounded px-2.5 py-1 data-[selected=true]:bg-base-300"
            >
              <span className="h-2 w-2 shrink-0 rounded-full" style={{ background: wireColour(carries) }} />
              <span className="shrink-0 font-semibold">
                {from}
                {target.name}
              </span>
              <span className="quiet truncate text-2xs">{label}</span>
            </Command.Item>
          ))}
        </Command.List>
      </Command>
    </div>
  );
}
