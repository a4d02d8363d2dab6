import clsx from 'clsx';
import { useState } from 'react';

/** A text that is taken over as it is typed, or on Enter and on leaving the field. */
export function TextField({
  label,
  value,
  lines = 1,
  mono,
  invalid,
  live,
  className,
  title,
  onChange,
  onDone,
}: {
  label: string;
  value: string;
  title?: string;
  lines?: number;
  mono?: boolean;
  invalid?: boolean;
  /** Takes over every keystroke. */
  live?: boolean;
  className?: string;
  onChange(value: string): void;
  onDone?(): void;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const shared = {
    'aria-label': label,
    title,
    'aria-invalid': invalid,
    spellCheck: false,
    value: draft ?? value,
    className: clsx(
      'w-full rounded border bg-base-100 px-2 py-1 outline-none focus:border-primary',
      invalid ? 'border-error' : 'edge',
      mono && 'figures',
      className,
    ),
    onChange: (event: React.ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) => {
      setDraft(event.target.value);
      if (live) onChange(event.target.value);
    },
    onBlur: () => {
      if (draft !== null && !live && draft !== value) onChange(draft);
      setDraft(null);
      onDone?.();
    },
  };
  if (lines > 1) return <textarea {...shared} rows={lines} />;
  return (
    <input
      {...shared}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
      }}
    />
  );
}

/** A choice in a list. */
export function SelectField({
  label,
  value,
  options,
  className,
  onChange,
}: {
  label: string;
  value: string;
  options: readonly (readonly [string, string])[];
  className?: string;
  onChange(value: string): void;
}) {
  return (
    <select
      aria-label={label}
      className={clsx(
        'h-6 rounded border edge bg-base-100 px-1.5 outline-none focus:border-primary',
        className,
      )}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      // Up and down try the values at once, on systems too where they would open the list.
      onKeyDown={(event) => {
        const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
        if (!by || event.altKey) return;
        event.preventDefault();
        const next = options[options.findIndex(([id]) => id === value) + by];
        if (next) onChange(next[0]);
      }}
    >
      {options.map(([id, text]) => (
        <option key={id} value={id}>
          {text}
        </option>
      ))}
    </select>
  );
}
