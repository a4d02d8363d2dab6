import { ChevronDown, ChevronRight } from 'lucide-react';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { ControlSpec } from '../../core/kind/controls';

/** Groups that are folded, by kind and heading, for this browser. */
const foldedGroups = create<{ folded: readonly string[] }>()(
  persist(() => ({ folded: [] as readonly string[] }), { name: 'pyrvel-groups' }),
);

const toggle = (key: string): void =>
  void foldedGroups.setState(({ folded }) => ({
    folded: folded.includes(key) ? folded.filter((one) => one !== key) : [...folded, key],
  }));

/** Rows of controls under the headings that their kind gives them; those without come first. */
export function ControlGroups({
  kind,
  shown,
  row,
}: {
  kind: string;
  shown: readonly (readonly [string, ControlSpec])[];
  row(name: string, spec: ControlSpec): React.ReactNode;
}) {
  const folded = foldedGroups((s) => s.folded);
  const groups = new Map<string, (readonly [string, ControlSpec])[]>();
  for (const entry of shown) {
    const group = entry[1].group ?? '';
    groups.set(group, [...(groups.get(group) ?? []), entry]);
  }
  const plain = groups.get('') ?? [];
  groups.delete('');
  return (
    <>
      {plain.map(([name, spec]) => row(name, spec))}
      {[...groups].map(([heading, entries]) => {
        const key = `${kind} ${heading}`;
        const isFolded = folded.includes(key);
        const Icon = isFolded ? ChevronRight : ChevronDown;
        return (
          <section key={heading} aria-label={heading}>
            <button
              type="button"
              className="mt-1.5 mb-0.5 flex w-full items-center gap-1 border-t edge pt-1.5 text-left font-semibold"
              aria-expanded={!isFolded}
              onClick={() => toggle(key)}
            >
              <Icon size={13} /> {heading} <span className="quiet text-2xs">{entries.length}</span>
            </button>
            {!isFolded && entries.map(([name, spec]) => row(name, spec))}
          </section>
        );
      })}
    </>
  );
}
