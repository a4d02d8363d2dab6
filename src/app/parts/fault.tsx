import type { ReactNode } from 'react';
import { useRouteError } from 'react-router';

/** Stands in the place of a view that cannot be shown: what has happened, what of it the performer should know, and what was said. */
export function FaultPage({
  title,
  fault,
  more,
  children,
}: {
  title: string;
  fault: string;
  /** Ways out beside that of loading the page again. */
  more?: ReactNode;
  children: ReactNode;
}) {
  return (
    <main className="grid h-full place-items-center">
      <div className="max-w-lg">
        <h1 className="text-lg font-semibold">{title}</h1>
        <p className="quiet mt-2">{children}</p>
        <p className="figures mt-3 text-error">{fault}</p>
        <div className="mt-4 flex gap-2">
          <button type="button" className="btn btn-primary btn-sm" onClick={() => location.reload()}>
            Reload
          </button>
          {more}
        </div>
      </div>
    </main>
  );
}

/** Shown when a view itself fails: the engine and the stage go on behind it. */
export function Fault() {
  const error = useRouteError();
  return (
    <FaultPage title="This view stopped." fault={error instanceof Error ? error.message : String(error)}>
      The stage goes on, and every edit up to now is saved. Reload to come back to where you were.
    </FaultPage>
  );
}
