import clsx from 'clsx';
import type { ReactNode } from 'react';
import type { SourceStatus } from './input-store';

/** One source: its name, how it stands, its live value, and what stands in for it. */
export function SourceCard({
  name,
  icon,
  status,
  value,
  className,
  children,
}: {
  name: string;
  icon: ReactNode;
  status?: SourceStatus & { words: string };
  value: ReactNode;
  className?: string;
  children: ReactNode;
}) {
  const tone =
    status?.standing === 'away' ? 'bg-error' : status?.standing === 'asking' ? 'bg-warning' : 'bg-success';
  return (
    <section
      aria-label={name}
      className={clsx('panel flex min-h-0 flex-col gap-2 rounded-md border edge p-3', className)}
      data-source={name}
    >
      <header className="flex h-5 items-center gap-2">
        <span className="text-primary">{icon}</span>
        <h2 className="font-semibold">{name}</h2>
        {status && status.standing !== 'idle' && <span className={clsx('h-2 w-2 rounded-full', tone)} />}
        <span
          className={clsx(
            'min-w-0 grow truncate text-2xs',
            status?.standing === 'away' ? 'text-error' : 'quiet',
          )}
          title={status?.message || status?.words}
          data-testid="source-status"
        >
          {status?.message || status?.words}
        </span>
        <output className="figures shrink-0 text-primary" aria-label={`${name} now`}>
          {value}
        </output>
      </header>
      {children}
    </section>
  );
}
