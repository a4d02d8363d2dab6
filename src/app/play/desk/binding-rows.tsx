import { Trash2 } from 'lucide-react';
import { sourceName } from '../../../core/desk/bindings';
import { numbersOfType } from '../../../core/desk/value';
import type { Binding, DeskControl } from '../../../core/document/types';
import { editShow, useShow } from '../../data/show-store';
import { learnBinding } from '../../inputs/learn-store';

/** What moves a desk control from outside, and how. */
export function BindingRows({ control }: { control: DeskControl }) {
  const all = useShow((show) => show.bindings);
  const bindings = all.filter(({ target }) => target.type === 'desk' && target.control === control.id);
  const edit = (id: string, change: (one: Binding) => void): void =>
    void editShow((show) => {
      const found = show.bindings.find((one) => one.id === id);
      if (found) change(found);
    });
  const count = numbersOfType[control.type];
  return (
    <>
      {bindings.map((one) => (
        <div key={one.id} className="rounded bg-base-100 p-1 text-2xs" data-binding={sourceName(one.source)}>
          <div className="flex items-center">
            <span className="min-w-0 grow truncate">{sourceName(one.source)}</span>
            <button
              type="button"
              className="quiet px-1"
              aria-label={`Unbind ${sourceName(one.source)}`}
              onClick={() =>
                editShow((show) => void (show.bindings = show.bindings.filter(({ id }) => id !== one.id)))
              }
            >
              <Trash2 size={11} />
            </button>
          </div>
          <div className="flex flex-wrap gap-x-2">
            {(
              [
                ['pickup', 'picks up'],
                ['feedback', 'sends back'],
              ] as const
            ).map(([key, words]) => (
              <label key={key} className="flex items-center gap-1">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={one[key]}
                  onChange={(event) => edit(one.id, (b) => void (b[key] = event.target.checked))}
                />
                {words}
              </label>
            ))}
            <label className="flex items-center gap-1">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={one.way === 'relative'}
                onChange={(event) =>
                  edit(one.id, (b) => void (b.way = event.target.checked ? 'relative' : 'absolute'))
                }
              />
              endless
            </label>
            {one.source.type === 'control' && (
              <label className="flex items-center gap-1">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={one.source.fine}
                  onChange={(event) =>
                    edit(one.id, (b) => {
                      if (b.source.type === 'control') b.source.fine = event.target.checked;
                    })
                  }
                />
                14 bit
              </label>
            )}
          </div>
        </div>
      ))}
      <div className="flex gap-1">
        {Array.from({ length: Math.min(2, Math.max(1, count)) }, (_, from) => (
          <button
            key={from}
            type="button"
            className="btn h-7 min-w-0 flex-1 border edge bg-base-100 text-2xs font-normal"
            onClick={() => learnBinding({ type: 'desk', control: control.id, from }, control.name)}
          >
            Learn {control.type === 'xy' ? 'xy'[from] : ''}
          </button>
        ))}
      </div>
    </>
  );
}
