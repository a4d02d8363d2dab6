import { useRouteError } from 'react-router';

/** Shown when a view itself fails: the engine and the stage go on behind it. */
export function Fault() {
  const error = useRouteError();
  return (
    <main className="grid h-full place-items-center">
      <div className="max-w-lg">
        <h1 className="text-lg font-semibold">This view stopped.</h1>
        <p className="quiet mt-2">
          The stage goes on, and every edit up to now is saved. Reload to come back to where you were.
        </p>
        <p className="figures mt-3 text-error">{error instanceof Error ? error.message : String(error)}</p>
        <button type="button" className="btn btn-primary btn-sm mt-4" onClick={() => location.reload()}>
          Reload
        </button>
      </div>
    </main>
  );
}
