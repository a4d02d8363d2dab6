import { hasWindow } from '../../core/wall/outputs';
import { askDisplays, canAskDisplays, chooseDisplay, displayOf, displayStore } from '../data/displays';
import { showStore, useShow } from '../data/show-store';
import { say } from '../parts/notices';
import { DisplayRow } from './output-rows';

/** Asks which display is which, where screens of the show have none on this machine. */
export function DisplayChoice() {
  const outputs = useShow((show) => show.wall.outputs);
  const { displays, choices } = displayStore();
  const show = showStore((s) => s.id);
  const screens = outputs.filter(hasWindow);
  const open = screens.filter(({ id }) =>
    displays
      ? !displayOf(show, id) && choices[`${show} ${id}`] !== ''
      : choices[`${show} ${id}`] === undefined,
  );
  if (!canAskDisplays() || open.length === 0) return null;
  return (
    <div className="border-t edge p-2" role="group" aria-label="Displays" data-testid="display-choice">
      <p className="mb-1">
        <span className="font-semibold">Which display is which?</span> {open.length} of {screens.length}{' '}
        screens have none on this machine.
      </p>
      {displays ? (
        open.map((output) => (
          <div key={output.id} className="mb-1">
            <span className="quiet block truncate text-2xs">{output.name}</span>
            <DisplayRow output={output} />
          </div>
        ))
      ) : (
        <div className="flex items-center gap-1">
          <button
            type="button"
            className="btn btn-sm"
            onClick={() =>
              void askDisplays().catch(() =>
                say({
                  tone: 'warning',
                  text: 'Displays are chosen once this page may manage windows: allow it beside the address.',
                }),
              )
            }
          >
            Choose displays …
          </button>
          <button
            type="button"
            className="tool"
            title="Opens them as plain windows, to be moved by hand"
            onClick={() => open.forEach(({ id }) => chooseDisplay(show, id, ''))}
          >
            Plain windows
          </button>
        </div>
      )}
    </div>
  );
}
