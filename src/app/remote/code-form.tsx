import { useState } from 'react';

/** Asks for the code that lets this machine in. `name`: what it may be called; null: it is named elsewhere. */
export function CodeForm({
  title,
  name,
  fault,
  enter,
}: {
  title: string;
  name: string | null;
  fault: string;
  enter(name: string, code: string): Promise<void>;
}) {
  const [code, setCode] = useState('');
  const [own, setOwn] = useState(name ?? '');
  const [isBusy, setBusy] = useState(false);
  const digits = code.replace(/\D/g, '');
  return (
    <main className="grid h-full place-items-center p-4">
      <form
        className="flex w-full max-w-sm flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          setBusy(true);
          void enter(own.trim() || (name ?? ''), digits).finally(() => {
            setBusy(false);
            setCode('');
          });
        }}
      >
        <div className="flex items-center gap-3">
          <img src="/mark.svg" alt="" className="h-9 w-9" />
          <h1 className="text-xl font-semibold">{title}</h1>
        </div>
        <label className="flex flex-col gap-1">
          <span className="quiet">Code</span>
          <input
            className="figures h-16 rounded border-2 edge bg-base-200 text-center text-4xl tracking-widest outline-none focus:border-primary"
            inputMode="numeric"
            autoComplete="one-time-code"
            autoFocus
            aria-describedby="code-help"
            placeholder="000 000"
            value={code}
            onChange={(event) => setCode(event.target.value.replace(/[^\d ]/g, '').slice(0, 7))}
          />
          <span id="code-help" className="quiet text-2xs">
            Six digits. They stand on the main machine, in Machines.
          </span>
        </label>
        {name !== null && (
          <label className="flex flex-col gap-1">
            <span className="quiet">Name of this machine</span>
            <input
              className="h-11 rounded border-2 edge bg-base-200 px-3 text-base outline-none focus:border-primary"
              maxLength={40}
              value={own}
              onChange={(event) => setOwn(event.target.value)}
            />
          </label>
        )}
        <p role="alert" className="min-h-10 text-error">
          {fault}
        </p>
        <button
          type="submit"
          className="btn btn-primary h-14 text-lg"
          disabled={digits.length !== 6 || isBusy}
        >
          Come in
        </button>
      </form>
    </main>
  );
}
