import { ChevronLeft } from 'lucide-react';
import { Fragment } from 'react';
import { pathTo } from '../../core/module/open-place';
import { commandOf, runCommand, titleOf } from '../commands/registry';
import { openScene } from '../data/session';
import { useShow } from '../data/show-store';

/** In a module: the way back to where it is used. */
export default function ModulePath({ place }: { place: string }) {
  const show = useShow((s) => s);
  const path = pathTo(show, place);
  return (
    <nav
      aria-label="The way to this module"
      className="absolute top-2 right-2 flex h-8 items-center gap-1 rounded border border-primary bg-base-200 pr-2.5 pl-1"
      data-testid="module-path"
    >
      <button
        type="button"
        className="tool"
        aria-label="Leave the module"
        title={titleOf(commandOf('module.leave'))}
        onClick={() => runCommand('module.leave')}
      >
        <ChevronLeft size={15} />
      </button>
      {path.map(({ place: at, name }, k) => (
        <Fragment key={at}>
          {k > 0 && <span className="quiet">›</span>}
          {k < path.length - 1 ? (
            <button
              type="button"
              className="quiet max-w-40 truncate hover:underline"
              onClick={() => openScene(at)}
            >
              {name}
            </button>
          ) : (
            <span className="max-w-48 truncate font-semibold text-primary" aria-current="page">
              {name}
            </span>
          )}
        </Fragment>
      ))}
    </nav>
  );
}
