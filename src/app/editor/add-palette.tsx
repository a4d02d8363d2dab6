import { Command } from 'cmdk';
import { useEffect, useMemo, useState } from 'react';
import type { Kind } from '../../core/kind/kind';
import { catalogue, familyLabels, familyOf, type Family } from '../../nodes/catalogue';
import type { Scene } from '../../core/document/types';
import { fittingPort, searchKinds, type AddRequest } from './add-search';
import { wireColour } from './flow-model';
import { KindHelp } from './kind-help';

/** Milliseconds that a choice has to rest before its example runs. */
const restMs = 450;

function KindItem({ kind, onAdd }: { kind: Kind; onAdd(kind: Kind): void }) {
  return (
    <Command.Item
      value={kind.id}
      onSelect={() => onAdd(kind)}
      className="flex cursor-pointer items-baseline gap-2.5 rounded px-2.5 py-1 data-[selected=true]:bg-base-300"
    >
      <span className="h-2 w-2 shrink-0 rounded-full" style={{ background: wireColour(kind.output) }} />
      <span className="w-28 shrink-0 font-semibold">{kind.label}</span>
      <span className="quiet truncate text-2xs">{kind.summary}</span>
    </Command.Item>
  );
}

/** Add a node, searched by what it is called and by what it is for. */
export default function AddPalette({
  request,
  onAdd,
  onExample,
  onClose,
}: {
  request: AddRequest;
  onAdd(kind: Kind): void;
  onExample(example: Scene): void;
  onClose(): void;
}) {
  const [search, setSearch] = useState('');
  const [chosen, setChosen] = useState('');
  const kinds = useMemo(
    () =>
      [...catalogue.values()].filter(
        (kind) =>
          !(kind.output === 'image' && kind.isSceneOut) && (!request.wire || fittingPort(kind, request.wire)),
      ),
    [request],
  );
  const found = useMemo(() => (search.trim() ? searchKinds(kinds, search) : null), [kinds, search]);
  const groups = useMemo(() => {
    const map = new Map<Family, Kind[]>();
    for (const kind of kinds) map.set(familyOf(kind), [...(map.get(familyOf(kind)) ?? []), kind]);
    return [...map];
  }, [kinds]);
  const type = (text: string): void => {
    setSearch(text);
    const [first] = text.trim() ? searchKinds(kinds, text) : (groups[0]?.[1] ?? []);
    setChosen(first?.id ?? '');
  };
  // The example runs once the choice rests, so that going through the list costs nothing.
  const [helped, setHelped] = useState('');
  useEffect(() => {
    const timer = setTimeout(() => setHelped(chosen), restMs);
    return () => clearTimeout(timer);
  }, [chosen]);
  const help = catalogue.get(helped);
  return (
    <div
      className="absolute inset-0 z-40 flex items-start justify-center bg-black/40 pt-12"
      onPointerDown={onClose}
    >
      <Command
        label="Add a node"
        loop
        shouldFilter={false}
        value={chosen}
        onValueChange={setChosen}
        className="flex max-h-[min(34rem,92%)] overflow-hidden rounded-lg border edge bg-base-200 shadow-2xl"
        onPointerDown={(e) => e.stopPropagation()}
        onKeyDown={(e) => {
          if (e.key === 'Escape') onClose();
          e.stopPropagation();
        }}
      >
        <div className="flex w-[26rem] flex-col">
          <Command.Input
            autoFocus
            value={search}
            onValueChange={type}
            placeholder={
              request.wire ? `Add what takes the ${request.wire.carries}…` : 'Add… say what you want to do'
            }
            className="h-11 w-full border-b edge bg-transparent px-4 text-base outline-none!"
          />
          <Command.List className="min-h-0 grow overflow-y-auto p-1.5">
            {found?.length === 0 && (
              <p className="quiet p-4">No match. Try what it should do, such as “copies” or “glow”.</p>
            )}
            {found
              ? found.map((kind) => <KindItem key={kind.id} kind={kind} onAdd={onAdd} />)
              : groups.map(([family, members]) => (
                  <Command.Group
                    key={family}
                    heading={familyLabels[family]}
                    className="[&_[cmdk-group-heading]]:heading [&_[cmdk-group-heading]]:px-2.5 [&_[cmdk-group-heading]]:py-1"
                  >
                    {members.map((kind) => (
                      <KindItem key={kind.id} kind={kind} onAdd={onAdd} />
                    ))}
                  </Command.Group>
                ))}
          </Command.List>
        </div>
        {help && (
          <div className="flex w-72 border-l edge">
            <KindHelp kind={help} onExample={onExample} />
          </div>
        )}
      </Command>
    </div>
  );
}
