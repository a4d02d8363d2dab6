import clsx from 'clsx';

/** A choice between few things, all in sight. */
export function Segments<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: readonly (readonly [T, string, boolean?])[];
  onChange(value: T): void;
}) {
  return (
    <div className="flex flex-1 gap-0.5 rounded border edge p-0.5" role="group" aria-label={label}>
      {options.map(([id, text, isOff]) => (
        <button
          key={id}
          type="button"
          aria-pressed={id === value}
          disabled={isOff}
          className={clsx(
            'h-6 flex-1 rounded-sm px-1 disabled:opacity-40',
            id === value ? 'bg-primary text-primary-content' : 'hover:bg-base-300',
          )}
          onClick={() => onChange(id)}
        >
          {text}
        </button>
      ))}
    </div>
  );
}
