import { Command } from 'cmdk';
import { useEffect, useMemo, useState } from 'react';
import type { Kind } from '../../core/kind/kind';
import { catalogue, familyLabels, familyOf, type Family } from '../../nodes/catalogue';
import type { ModulePack } from '../../core/show/module-pack';
import type { Scene } from '../../core/document/types';
import { kindAnywhere, libraryKinds, libraryStore, loadLibrary, packOfKind } from '../data/module-library';
import { usedKinds } from '../data/used-kinds';
import { fittingPort, type AddRequest } from './add-request';
import { searchKinds } from './add-search';
import { wireColour } from './flow-model';
import KindHelp from './kind-help';

/** Milliseconds that a choice has to rest before its example runs. */
const restMs = 450;

/** Kinds under a heading. What is listed twice has a value of its own in each group. */
interface Group {
  name: string;
  heading: string;
  kinds: readonly Kind[];
}

const valueOf = (group: string, kind: Kind): string => `${group} ${kind.id}`;
const idOf = (value: string): string => value.slice(value.lastIndexOf(' ') + 1);

/** What Add lists: what is found for a text, or else favourites, what was added last, and all by families. */
function groupsOf(
  kinds: readonly Kind[],
  text: string,
  { recent, favourites }: { recent: readonly string[]; favourites: readonly string[] },
): Group[] {
  if (text.trim())
    return [{ name: 'found', heading: '', kinds: searchKinds(kinds, text, new Set(favourites)) }];
  const among = (ids: readonly string[]): Kind[] =>
    ids.flatMap((id) => kinds.find((kind) => kind.id === id) ?? []);
  const families = new Map<Family, Kind[]>();
  for (const kind of kinds) families.set(familyOf(kind), [...(families.get(familyOf(kind)) ?? []), kind]);
  return [
    { name: 'favourite', heading: 'Favourites', kinds: among(favourites) },
    { name: 'recent', heading: 'Added last', kinds: among(recent) },
    ...[...families].map(([family, members]) => ({
      name: family,
      heading: familyLabels[family],
      kinds: members,
    })),
  ].filter((group) => group.kinds.length > 0);
}

function KindItem({ value, kind, onAdd }: { value: string; kind: Kind; onAdd(kind: Kind): void }) {
  return (
    <Command.Item
      value={value}
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
  isInModule,
  onAdd,
  onExample,
  onClose,
}: {
  request: AddRequest;
  /** Whether what is added lies in a module, which has ends. */
  isInModule: boolean;
  /** `packs`: modules that it needs and the show may not have. */
  onAdd(kind: Kind, packs: readonly ModulePack[]): void;
  onExample(example: Scene, packs: readonly ModulePack[]): void;
  onClose(): void;
}) {
  const [search, setSearch] = useState('');
  const [chosen, setChosen] = useState('');
  const library = libraryStore();
  useEffect(() => void loadLibrary(), []);
  const kinds = useMemo(
    () =>
      [...catalogue.values(), ...libraryKinds(library)].filter(
        (kind) =>
          !(kind.output === 'image' && kind.isSceneOut) &&
          (isInModule || kind.end === undefined) &&
          (!request.wire || fittingPort(kind, request.wire)),
      ),
    [request, library, isInModule],
  );
  const used = usedKinds();
  const groups = useMemo(() => groupsOf(kinds, search, used), [kinds, search, used]);
  const type = (text: string): void => {
    setSearch(text);
    const [first] = groupsOf(kinds, text, used);
    setChosen(first?.kinds[0] ? valueOf(first.name, first.kinds[0]) : '');
  };
  // The example runs once the choice rests, so that going through the list costs nothing.
  const [helped, setHelped] = useState('');
  useEffect(() => {
    const timer = setTimeout(() => setHelped(chosen), restMs);
    return () => clearTimeout(timer);
  }, [chosen]);
  const help = kindAnywhere(idOf(helped));
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
            className="h-11 w-full shrink-0 border-b edge bg-transparent px-4 text-base outline-none!"
          />
          <Command.List className="min-h-0 grow overflow-y-auto p-1.5">
            {groups.every((group) => group.kinds.length === 0) && (
              <p className="quiet p-4">No match. Try what it should do, such as “copies” or “glow”.</p>
            )}
            {groups.map(({ name, heading, kinds: members }) => (
              <Command.Group
                key={name}
                heading={heading}
                className="[&>[cmdk-group-heading]]:px-2.5 [&>[cmdk-group-heading]]:py-1 [&>[cmdk-group-heading]]:text-2xs [&>[cmdk-group-heading]]:font-semibold [&>[cmdk-group-heading]]:text-primary"
              >
                {members.map((kind) => (
                  <KindItem
                    key={kind.id}
                    value={valueOf(name, kind)}
                    kind={kind}
                    onAdd={(one) => onAdd(one, packOfKind(one.id))}
                  />
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
