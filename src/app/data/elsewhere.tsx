import { useLocation, useNavigate } from 'react-router';
import { takeOver } from './keeper';
import { ownership } from './ownership';
import { useShow } from './show-store';

/** Lies over a view while the open show is being edited in another tab: two would save over each other. */
export function Elsewhere() {
  const elsewhere = ownership((s) => s.elsewhere);
  const name = useShow((show) => show.name);
  const navigate = useNavigate();
  const { pathname } = useLocation();
  if (!elsewhere || pathname === '/shows') return null;
  return (
    <div className="absolute inset-0 z-50 grid place-items-center bg-black/60" data-testid="elsewhere">
      <div
        role="alertdialog"
        aria-label="Open in another tab"
        className="max-w-md rounded-lg border edge bg-base-200 p-5 shadow-2xl"
      >
        <h2 className="text-lg font-semibold">“{name}” is open in another tab</h2>
        <p className="mt-2">
          It is edited in one place at a time, so that nothing is lost. Take it over to go on here; what was
          done there is saved first.
        </p>
        <div className="mt-4 flex gap-2">
          <button type="button" className="btn btn-primary btn-sm px-3" onClick={() => void takeOver()}>
            Take over
          </button>
          <button
            type="button"
            className="btn btn-sm border edge bg-base-100 px-3"
            onClick={() => void navigate('/shows')}
          >
            Open another show
          </button>
        </div>
      </div>
    </div>
  );
}
