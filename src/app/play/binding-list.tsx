import { Trash2 } from 'lucide-react';
import { sourceName } from '../../core/desk/bindings';
import type { BindTarget, Show } from '../../core/document/types';
import { commands } from '../commands/registry';
import { playSession } from '../data/play-session';
import { editShow, useShow } from '../data/show-store';
import { learnBinding } from '../inputs/learn-store';
import { SelectField } from '../parts/field';

/** What a binding moves, in words; null where it is gone. */
function targetName(show: Show, target: BindTarget): string | null {
  switch (target.type) {
    case 'desk': {
      const found = show.desk
        .flatMap(({ controls }) => controls)
        .find((control) => control.id === target.control);
      return found ? `${found.name}${found.type === 'xy' ? ` ${'xy'[target.from]}` : ''}` : null;
    }
    case 'command':
      return commands.find(({ id }) => id === target.command)?.label ?? null;
    case 'scene':
      return show.scenes.find(({ id }) => id === target.scene)?.name ?? null;
    case 'snapshot':
      return show.snapshots.find(({ id }) => id === target.snapshot)?.name ?? null;
    case 'hit':
    case 'master': {
      const word = target.type === 'hit' ? target.hit : target.master;
      return word[0].toUpperCase() + word.slice(1);
    }
  }
}

/** Everything that is bound, and what else can be. */
export function BindingList() {
  const show = useShow((one) => one);
  return (
    <section aria-label="Bindings" className="flex min-h-0 grow flex-col gap-1.5">
      <h2 className="font-semibold text-secondary">Bind by moving</h2>
      <p className="quiet text-2xs">
        Click what is to be moved, then move the dial, press the key or pad, or send the message that is to
        move it.
      </p>
      <SelectField
        label="Bind another command"
        value=""
        options={[['', 'Another command …'], ...commands.map(({ id, label }) => [id, label] as const)]}
        className="h-11!"
        onChange={(command) => {
          if (!command) return;
          playSession.setState({ binding: false });
          learnBinding({ type: 'command', command }, commands.find(({ id }) => id === command)!.label);
        }}
      />
      <ul className="flex min-h-0 grow flex-col gap-0.5 overflow-y-auto">
        {show.bindings.map((binding) => (
          <li key={binding.id} className="flex min-h-9 items-center gap-2 rounded bg-base-100 px-2 text-2xs">
            <span className="min-w-0 grow">
              <span className="block truncate font-semibold">
                {targetName(show, binding.target) ?? <span className="text-warning">gone</span>}
              </span>
              <span className="quiet block truncate">{sourceName(binding.source)}</span>
            </span>
            <button
              type="button"
              className="quiet p-2"
              aria-label={`Unbind ${sourceName(binding.source)}`}
              onClick={() =>
                editShow((draft) => {
                  draft.bindings = draft.bindings.filter(({ id }) => id !== binding.id);
                })
              }
            >
              <Trash2 size={13} />
            </button>
          </li>
        ))}
        {show.bindings.length === 0 && <p className="quiet text-2xs">Nothing is bound yet.</p>}
      </ul>
    </section>
  );
}
