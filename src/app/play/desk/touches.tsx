import clsx from 'clsx';
import { Send } from 'lucide-react';
import { useState } from 'react';
import { fromHex, toHex } from '../../../core/colour';
import { targetSpec } from '../../../core/desk/value';
import type { DeskControl } from '../../../core/document/types';
import { catalogue } from '../../../nodes/catalogue';
import { useShow } from '../../data/show-store';
import { perform } from '../../engine/perform';
import { useHold } from '../../parts/use-hold';
import { useDeskValue } from './use-desk';

/** A pad: down while it is held; one that fires a node's button counts presses. */
export function Pad({ control }: { control: DeskControl }) {
  const value = useDeskValue(control);
  const { held, handlers } = useHold((down) => perform({ type: 'press', control: control.id, down }));
  const isOn = held || (control.step !== 1 && typeof value !== 'string' && value[0] === control.range[1]);
  return (
    <button
      type="button"
      aria-label={control.name}
      aria-pressed={isOn}
      data-desk={control.id}
      className={clsx(
        'min-h-0 grow touch-none rounded border-2',
        isOn ? 'border-primary bg-primary text-primary-content' : 'edge bg-base-100 hover:border-primary',
      )}
      {...handlers}
    >
      {control.step === 1 && typeof value !== 'string' && (
        <span className="figures text-2xs">{value[0] > 0 ? `×${Math.round(value[0])}` : ''}</span>
      )}
    </button>
  );
}

export function Switch({ control }: { control: DeskControl }) {
  const value = useDeskValue(control);
  const isOn = typeof value !== 'string' && value[0] === control.range[1];
  return (
    <button
      type="button"
      role="switch"
      aria-label={control.name}
      aria-checked={isOn}
      data-desk={control.id}
      className={clsx(
        'flex min-h-0 grow items-center justify-center rounded border-2 text-2xs font-semibold',
        isOn
          ? 'border-primary bg-primary text-primary-content'
          : 'quiet edge bg-base-100 hover:border-primary',
      )}
      onClick={() => perform({ type: 'flip', control: control.id })}
    >
      {isOn ? 'On' : 'Off'}
    </button>
  );
}

/** A colour chip. Alpha stays as it is. */
export function Chip({ control }: { control: DeskControl }) {
  const value = useDeskValue(control);
  const rgba = typeof value === 'string' ? [0, 0, 0, 1] : value;
  return (
    <label
      className="relative min-h-0 grow cursor-pointer overflow-hidden rounded border-2 edge focus-within:border-primary"
      style={{ background: toHex(rgba) }}
    >
      <input
        type="color"
        className="absolute inset-0 h-full w-full cursor-pointer opacity-0"
        aria-label={control.name}
        data-desk={control.id}
        value={toHex(rgba)}
        onChange={(event) =>
          perform({
            type: 'desk',
            control: control.id,
            value: [...fromHex(event.target.value)!, rgba[3] ?? 1],
          })
        }
      />
    </label>
  );
}

/** A choice: all options at hand where there is room for buttons, else a list. */
export function Choice({ control }: { control: DeskControl }) {
  const value = useDeskValue(control);
  const scenes = useShow((show) => show.scenes);
  const spec = control.targets.map((target) => targetSpec({ scenes }, target, catalogue)?.spec)[0];
  const options = spec?.type === 'choice' ? Object.entries(spec.options) : [];
  const choose = (option: string): void => perform({ type: 'desk', control: control.id, value: option });
  if (control.size[0] * control.size[1] < options.length)
    return (
      <select
        className="min-h-0 grow rounded border-2 edge bg-base-100 px-1.5"
        aria-label={control.name}
        data-desk={control.id}
        value={String(value)}
        onChange={(event) => choose(event.target.value)}
      >
        {options.map(([id, text]) => (
          <option key={id} value={id}>
            {text}
          </option>
        ))}
      </select>
    );
  return (
    <div
      role="radiogroup"
      aria-label={control.name}
      data-desk={control.id}
      className="grid min-h-0 grow auto-cols-fr grid-flow-col gap-1"
    >
      {options.map(([id, text]) => (
        <button
          key={id}
          type="button"
          role="radio"
          aria-checked={id === value}
          className={clsx(
            'min-w-0 truncate rounded border-2 px-1 text-2xs',
            id === value
              ? 'border-primary bg-primary text-primary-content'
              : 'edge bg-base-100 hover:border-primary',
          )}
          onClick={() => choose(id)}
        >
          {text}
        </button>
      ))}
    </div>
  );
}

/** The words of a title: written beside the picture, and put on air with Enter or the button. */
export function Title({ control }: { control: DeskControl }) {
  const value = useDeskValue(control);
  const [draft, setDraft] = useState<string | null>(null);
  const words = draft ?? String(value);
  const isNew = draft !== null && draft !== value;
  const send = (): void => {
    if (!isNew) return;
    perform({ type: 'desk', control: control.id, value: words });
    setDraft(null);
  };
  return (
    <div className="flex min-h-0 grow gap-1">
      <textarea
        aria-label={control.name}
        data-desk={control.id}
        title="Enter puts it on air; Shift+Enter begins a line; Esc brings back what is on air"
        spellCheck={false}
        className={clsx(
          'min-w-0 grow resize-none rounded border-2 bg-base-100 px-2 py-1 text-sm outline-none',
          isNew ? 'border-secondary' : 'edge focus:border-primary',
        )}
        value={words}
        onChange={(event) => setDraft(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && !event.shiftKey) {
            event.preventDefault();
            send();
          } else if (event.key === 'Escape') setDraft(null);
        }}
      />
      <button
        type="button"
        className="btn w-11 shrink-0 px-0 btn-primary"
        style={{ height: 'auto' }}
        aria-label={`Put ${control.name} on air`}
        title="Put it on air (Enter)"
        disabled={!isNew}
        onClick={send}
      >
        <Send size={16} />
      </button>
    </div>
  );
}
