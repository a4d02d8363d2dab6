import { hasWindow } from '../../core/wall/outputs';
import { canAskDisplays, choiceOf, chooseDisplay, displayOf, displayStore } from '../data/displays';
import { showStore, useShow } from '../data/show-store';
import { askForDisplays, DisplayRow } from './output-rows';

/** Asks which display is which, where screens of the show have none on this machine. */
export function DisplayChoice() {
  const outputs = useShow((show) => show.wall.outputs);
  const state = displayStore();
  const { displays } = state;
  const show = showStore((s) => s.id);
  const screens = outputs.filter(hasWindow);
  const open = screens.filter(({ id }) => {
    const choice = choiceOf(state, show, id);
    return displays ? !displayOf(show, id) && choice !== '' : choice === undefined;
  });
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
          <button type="button" className="btn btn-sm" onClick={askForDisplays}>
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
