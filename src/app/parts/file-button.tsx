import type { LucideIcon } from 'lucide-react';
import { useRef } from 'react';
import { say } from './notices';

/** A button that takes a file from the disk and reads it; what is wrong with it is said. */
export function FileButton({
  label,
  title,
  accept,
  testId,
  icon: Icon,
  read,
}: {
  label: string;
  title: string;
  accept: string;
  testId: string;
  /** Stands for the label, which is then only said. */
  icon?: LucideIcon;
  /** Throws with what is wrong. */
  read(file: File): Promise<void>;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button
        type="button"
        className={Icon ? 'tool px-1.5' : 'tool'}
        title={title}
        aria-label={Icon && label}
        onClick={() => input.current?.click()}
      >
        {Icon ? <Icon size={13} /> : label}
      </button>
      <input
        ref={input}
        type="file"
        accept={accept}
        className="hidden"
        data-testid={testId}
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          event.target.value = '';
          if (chosen)
            void read(chosen).catch((error: Error) =>
              say({ tone: 'error', text: `${chosen.name} can't be used: ${error.message}` }),
            );
        }}
      />
    </>
  );
}
