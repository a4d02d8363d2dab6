/** A labelled row. */
export function Row({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <div className="flex min-h-7 items-center gap-2">
      <span className="w-24 shrink-0">{label}</span>
      {children}
    </div>
  );
}

export function Toggle({
  label,
  on,
  disabled,
  set,
}: {
  label: string;
  on: boolean;
  disabled?: boolean;
  set(on: boolean): void;
}) {
  return (
    <label className="flex items-center gap-1.5">
      <input
        type="checkbox"
        className="toggle toggle-xs"
        checked={on}
        disabled={disabled}
        onChange={(event) => set(event.target.checked)}
      />
      {label}
    </label>
  );
}

/** A part of an inspector. */
export function Section({
  title,
  reset,
  children,
}: {
  title: string;
  /** Brings it back to what changes nothing; absent: it is so already. */
  reset?: () => void;
  children: React.ReactNode;
}) {
  return (
    <section className="border-t edge py-2" aria-label={title}>
      <div className="mb-1 flex h-6 items-center">
        <h3 className="heading grow">{title}</h3>
        {reset && (
          <button type="button" className="tool text-2xs" onClick={reset}>
            Reset
          </button>
        )}
      </div>
      {children}
    </section>
  );
}
