import { useEffect, useState, type ReactNode } from 'react';
import { Link, useLocation } from 'react-router';
import { create } from 'zustand';
import { FaultPage } from '../parts/fault';
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
  const another = (
    <Link to="/shows" className="btn border edge bg-base-100 btn-sm">
      Open another show
    </Link>
  );
  return (
    <div className="h-full" role="alert">
      <FaultPage title="No show could be opened." fault={failure} more={another}>
        Pyrvel keeps shows in the storage of this browser, which some private windows do not have. What is
        stored is unchanged.
      </FaultPage>
    </div>
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
