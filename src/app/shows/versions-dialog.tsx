import { useQuery, useQueryClient } from '@tanstack/react-query';
import { History, X } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { readShow, ShowFileError } from '../../core/show/validate';
import { structuredCloneOf } from '../../core/show/create';
import { catalogue } from '../../nodes/catalogue';
import { database, type StoredShow, type StoredVersion } from '../data/db';
import { newShowId } from '../data/keeper';
import { editShow, showStore } from '../data/show-store';
import { keepVersion, linesBetween, versionsOf } from '../data/versions';
import { say } from '../parts/notices';

const when = new Intl.DateTimeFormat('en', { dateStyle: 'medium', timeStyle: 'short' });
/** Lines that are shown of what became of a show. */
const mostLines = 12;

function Picture({ blob }: { blob: Blob | undefined }) {
  const address = useMemo(() => (blob ? URL.createObjectURL(blob) : null), [blob]);
  useEffect(() => () => (address ? URL.revokeObjectURL(address) : undefined), [address]);
  return (
    <div className="aspect-video w-28 shrink-0 overflow-hidden rounded bg-black">
      {address && <img src={address} alt="" className="h-full w-full object-cover" />}
    </div>
  );
}

/** A version of a show as it is read today; null: it can't be opened, which is said. */
function readVersion(version: StoredVersion) {
  try {
    return readShow(JSON.stringify(version.data), catalogue).show;
  } catch (error) {
    if (!(error instanceof ShowFileError)) throw error;
    say({ tone: 'error', text: `This version can't be opened. ${error.message}` });
    return null;
  }
}

/** Versions of a show that were kept by themselves: to be compared, brought back, or opened beside it. */
export default function VersionsDialog({
  stored,
  onClose,
  onChange,
}: {
  stored: StoredShow;
  onClose(): void;
  onChange(): void;
}) {
  const queries = useQueryClient();
  const key = ['versions', stored.id];
  const { data: versions = [] } = useQuery({ queryKey: key, queryFn: () => versionsOf(stored.id) });
  const [compared, setCompared] = useState<number | null>(null);
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => dialog.current?.showModal(), []);
  const isOpen = showStore.getState().id === stored.id;
  const now = isOpen ? showStore.getState().show : stored.show;
  const restore = async (version: StoredVersion): Promise<void> => {
    const show = readVersion(version);
    if (!show) return;
    // Nothing is lost: how it stands now is a version as well.
    await keepVersion(stored.id, now);
    if (isOpen) editShow((draft) => void Object.assign(draft, structuredCloneOf(show)));
    else await database.shows.update(stored.id, { show, name: show.name, updated: Date.now() });
    await queries.invalidateQueries({ queryKey: key });
    onChange();
    say({ tone: 'info', text: `${stored.name} stands as it did on ${when.format(version.at)}.` });
    onClose();
  };
  const copy = async (version: StoredVersion): Promise<void> => {
    const show = readVersion(version);
    if (!show) return;
    const name = `${stored.name}, ${when.format(version.at)}`.slice(0, 60);
    await database.shows.put({
      id: newShowId(),
      name,
      updated: Date.now(),
      show: { ...show, name },
      picture: version.picture ?? stored.picture,
    });
    onChange();
    onClose();
  };
  return (
    <dialog ref={dialog} className="modal" aria-label={`Versions of ${stored.name}`} onClose={onClose}>
      <div className="modal-box flex max-h-[85vh] w-[44rem] max-w-[92vw] flex-col border edge bg-base-200 p-4">
        <div className="mb-2 flex items-center gap-2">
          <History size={16} />
          <h2 className="grow text-base font-semibold">Versions of {stored.name}</h2>
          <button type="button" className="tool" aria-label="Close" onClick={onClose}>
            <X size={15} />
          </button>
        </div>
        <p className="quiet mb-2">
          Kept by themselves: as the show was opened, and every ten minutes of editing. Bringing one back
          keeps how it stands now.
        </p>
        {versions.length === 0 && <p>None is kept yet.</p>}
        <ul className="min-h-0 divide-y divide-base-300 overflow-y-auto">
          {versions.map((version) => (
            <li key={version.id} className="flex gap-3 py-2" data-version={version.id}>
              <Picture blob={version.picture} />
              <div className="min-w-0 grow">
                <p className="font-semibold">{when.format(version.at)}</p>
                <div className="flex flex-wrap gap-1">
                  <button
                    type="button"
                    className="tool"
                    aria-expanded={compared === version.id}
                    onClick={() => setCompared(compared === version.id ? null : (version.id ?? null))}
                  >
                    Compare with now
                  </button>
                  <button type="button" className="tool" onClick={() => void restore(version)}>
                    Bring back
                  </button>
                  <button type="button" className="tool" onClick={() => void copy(version)}>
                    Open as a copy
                  </button>
                </div>
                {compared === version.id && <Lines before={version} now={now} />}
              </div>
            </li>
          ))}
        </ul>
      </div>
    </dialog>
  );
}

/** What became of the show since a version. */
function Lines({ before, now }: { before: StoredVersion; now: StoredShow['show'] }) {
  const lines = useMemo(() => linesBetween(before.data, now), [before, now]);
  return (
    <ul className="mt-1 list-disc pl-5 text-2xs" data-testid="version-lines">
      {lines.length === 0 && <li>It stands as then.</li>}
      {lines.slice(0, mostLines).map((line) => (
        <li key={line}>{line}</li>
      ))}
      {lines.length > mostLines && <li className="quiet">and {lines.length - mostLines} more</li>}
    </ul>
  );
}
