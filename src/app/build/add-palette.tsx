import { Command } from 'cmdk';
import { useMemo } from 'react';
import type { Carries, Kind } from '../../core/kind/kind';
import { takes } from '../../core/kind/kind';
import { partsOf } from '../../core/kind/controls';
import { catalogue, familyLabels, familyOf, type Family } from '../../nodes/catalogue';
import { wireColour } from './flow-model';

/** What is being added, and where. */
export interface AddRequest {
  /** Place on the patch. */
  at: readonly [number, number];
  /** Wire being pulled: only kinds that it fits are offered. */
  wire: { node: string; carries: Carries; end: 'source' | 'target'; port: string } | null;
}

/** The port of a kind that a pulled wire would go to, or null. */
export function fittingPort(kind: Kind, wire: AddRequest['wire']): string | null {
  if (!wire) return null;
  if (wire.end === 'target') return kind.output === wire.carries ? 'out' : null;
  const input = Object.entries(kind.inputs).find(([, spec]) => takes(spec, wire.carries));
  if (input) return input[0];
  if (wire.carries !== 'signal') return null;
  const control = Object.entries(kind.controls).find(
    ([, spec]) => partsOf(spec).length > 0 && spec.type !== 'toggle',
  );
  return control ? control[0] : null;
}

/**
 * How well a kind fits what was typed, 0..1: every word must be found, in its name, in what one would say it is for, or
 * in its summary.
 */
function fits(label: string, search: string, keywords: readonly string[] = []): number {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const name = label.toLowerCase();
  let least = 1;
  for (const word of words) {
    let best = 0;
    if (name.startsWith(word)) best = 1;
    else if (name.includes(word)) best = 0.9;
    for (const [k, keyword] of keywords.entries()) {
      const text = keyword.toLowerCase();
      const isSummary = k === keywords.length - 1;
      if (text === word) best = Math.max(best, 0.8);
      else if (text.startsWith(word)) best = Math.max(best, 0.6);
      else if (text.includes(word)) best = Math.max(best, isSummary ? 0.2 : 0.4);
    }
    least = Math.min(least, best);
  }
  return least;
}

/** Add a node, searched by what it is called and by what it is for. */
export function AddPalette({
  request,
  onAdd,
  onClose,
}: {
  request: AddRequest;
  onAdd(kind: Kind): void;
  onClose(): void;
}) {
  const groups = useMemo(() => {
    const map = new Map<Family, Kind[]>();
    for (const kind of catalogue.values()) {
      if (kind.output === 'image' && kind.isSceneOut) continue;
      if (request.wire && !fittingPort(kind, request.wire)) continue;
      // A pulled signal fits nearly everything through a control; what takes signals comes first.
      const family = familyOf(kind);
      map.set(family, [...(map.get(family) ?? []), kind]);
    }
    return [...map];
  }, [request]);
  return (
    <div
      className="absolute inset-0 z-40 grid place-items-start justify-center bg-black/40 pt-16"
      onPointerDown={onClose}
    >
      <Command
        label="Add a node"
        loop
        filter={fits}
        className="w-[26rem] overflow-hidden rounded-lg border edge bg-base-200 shadow-2xl"
        onPointerDown={(e) => e.stopPropagation()}
        onKeyDown={(e) => {
          if (e.key === 'Escape') onClose();
          e.stopPropagation();
        }}
      >
        <Command.Input
          autoFocus
          placeholder={
            request.wire ? `Add what takes the ${request.wire.carries}…` : 'Add… say what you want to do'
          }
          className="h-11 w-full border-b edge bg-transparent px-4 text-base outline-none"
        />
        <Command.List className="max-h-96 overflow-y-auto p-1.5">
          <Command.Empty className="quiet p-4">
            Nothing is called that. Try what it should do, such as “copies” or “glow”.
          </Command.Empty>
          {groups.map(([family, kinds]) => (
            <Command.Group
              key={family}
              heading={familyLabels[family]}
              className="[&_[cmdk-group-heading]]:heading [&_[cmdk-group-heading]]:px-2.5 [&_[cmdk-group-heading]]:py-1"
            >
              {kinds.map((kind) => (
                <Command.Item
                  key={kind.id}
                  value={kind.label}
                  keywords={[...kind.words, kind.summary]}
                  onSelect={() => onAdd(kind)}
                  className="flex cursor-pointer items-baseline gap-2.5 rounded px-2.5 py-1 data-[selected=true]:bg-base-300"
                >
                  <span
                    className="h-2 w-2 shrink-0 rounded-full"
                    style={{ background: wireColour(kind.output) }}
                  />
                  <span className="w-28 shrink-0 font-semibold">{kind.label}</span>
                  <span className="quiet truncate text-2xs">{kind.summary}</span>
                </Command.Item>
              ))}
            </Command.Group>
          ))}
        </Command.List>
      </Command>
    </div>
  );
}
