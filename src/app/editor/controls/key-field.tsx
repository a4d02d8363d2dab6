import { useState } from 'react';

/** A key of the keyboard, learned by pressing it. */
export function KeyField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange(code: string): void;
}) {
  const [learning, setLearning] = useState(false);
  return (
    <button
      type="button"
      aria-label={label}
      className={`figures h-6 grow rounded border bg-base-100 px-2 text-left ${learning ? 'border-primary text-primary' : 'edge'}`}
      onClick={() => setLearning(true)}
      onBlur={() => setLearning(false)}
      onKeyDown={(event) => {
        if (!learning) return;
        event.preventDefault();
        event.stopPropagation();
        if (event.key !== 'Escape') onChange(event.code);
        setLearning(false);
      }}
    >
      {learning ? 'Press a key…' : value.replace(/^Key|^Digit/, '')}
    </button>
  );
}
