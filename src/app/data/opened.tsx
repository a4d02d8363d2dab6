import { useEffect, useState, type ReactNode } from 'react';
import { Link, useLocation } from 'react-router';
import { create } from 'zustand';
import { showStore } from './show-store';

/** Milliseconds after which it is said that a show is being opened: most are there sooner. */
const patienceMs = 600;

/** Why no show could be opened at the start; null: it is on its way, or there. */
export const openingStore = create<{ failure: string | null }>()(() => ({ failure: null }));

/** Whether there is a show: before, nothing that is done would be kept. The gallery, which developers look at, has one that is not stored. */
export function useIsOpen(): boolean {
  const isOpen = showStore(({ id }) => id !== '');
  const { pathname } = useLocation();
  return isOpen || pathname === '/gallery';
}

function Opening() {
  const [isLate, setLate] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLate(true), patienceMs);
    return () => clearTimeout(timer);
  }, []);
  return (
    <div className="quiet grid h-full place-items-center" role="status">
      {isLate && 'Opening the show…'}
    </div>
  );
}

function Failed({ failure }: { failure: string }) {
  return (
    <main className="grid h-full place-items-center">
      <div className="max-w-lg" role="alert">
        <h1 className="text-lg font-semibold">No show could be opened.</h1>
        <p className="quiet mt-2">
          Pyrvel keeps shows in the storage of this browser, which some private windows do not have. What is
          stored is unchanged.
        </p>
        <p className="figures mt-3 text-error">{failure}</p>
        <div className="mt-4 flex gap-2">
          <button type="button" className="btn btn-primary btn-sm" onClick={() => location.reload()}>
            Reload
          </button>
          <Link to="/shows" className="btn border edge bg-base-100 btn-sm">
            Open another show
          </Link>
        </div>
      </div>
    </main>
  );
}

/** Shows views once there is a show for them: whoever presses something sooner would work on nothing. */
export function Opened({ children }: { children: ReactNode }) {
  const isOpen = useIsOpen();
  const failure = openingStore((s) => s.failure);
  const { pathname } = useLocation();
  if (isOpen) return children;
  if (failure === null) return <Opening />;
  return pathname === '/shows' ? children : <Failed failure={failure} />;
}
