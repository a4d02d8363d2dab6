import { packShow, unpackShow } from '../../core/show/archive';
import { filesOf, keepFiles } from '../data/files';
import { saveAs } from '../parts/save-as';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import clsx from 'clsx';
import { liveQuery } from 'dexie';
import { Copy, Download, FilePlus2, RotateCcw, Trash2, Upload, ImageOff, History } from 'lucide-react';
import { lazy, Suspense, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { makeShow, structuredCloneOf } from '../../core/show/create';
import { readShow, ShowFileError, writeShow } from '../../core/show/validate';
import type { Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { offerStarts } from '../data/start-session';
import { database, type StoredShow } from '../data/db';
import { binDays, bringBack, daysLeft, deleteForGood, moveToBin } from '../data/bin';
import {
  demoShowId,
  keepPicture,
  latestShow,
  loadShow,
  newShowId,
  restoreDemo,
  saveNow,
} from '../data/keeper';
import { editShow, showStore } from '../data/show-store';
import { say } from '../parts/notices';

const list = ['shows'];

function useShows() {
  return useQuery({
    queryKey: list,
    queryFn: async () => {
      await saveNow();
      const all = await database.shows.orderBy('updated').reverse().toArray();
      return {
        kept: all.filter(({ deleted }) => deleted === undefined),
        binned: all.filter(({ deleted }) => deleted !== undefined),
      };
    },
  });
}

const store = (show: Show, extra: Partial<StoredShow> = {}): StoredShow => ({
  id: newShowId(),
  name: show.name,
  updated: Date.now(),
  show,
  ...extra,
});

/** A show as a file: the document alone, or packed with the files it uses. */
async function download(show: Show): Promise<void> {
  const name = show.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase();
  const files = await filesOf(show);
  if (files.size === 0) {
    saveAs(new Blob([writeShow(show)], { type: 'application/json' }), `${name}.pyrvel.json`);
    return;
  }
  const packed = packShow(show, files) as Uint8Array<ArrayBuffer>;
  saveAs(new Blob([packed], { type: 'application/zip' }), `${name}.pyrvel.zip`);
}

const when = new Intl.DateTimeFormat('en', { dateStyle: 'medium', timeStyle: 'short' });

const VersionsDialog = lazy(() => import('./versions-dialog'));

function ShowCard({
  stored,
  open,
  onOpen,
  onChange,
}: {
  stored: StoredShow;
  open: boolean;
  onOpen(): void;
  onChange(): void;
}) {
  const [name, setName] = useState<string | null>(null);
  const [showsVersions, setVersions] = useState(false);
  const picture = useMemo(
    () => (stored.picture ? URL.createObjectURL(stored.picture) : null),
    [stored.picture],
  );
  useEffect(() => () => (picture ? URL.revokeObjectURL(picture) : undefined), [picture]);
  const rename = async (): Promise<void> => {
    const wanted = name?.trim().slice(0, 60);
    setName(null);
    if (!wanted || wanted === stored.name) return;
    if (open) {
      editShow((show) => void (show.name = wanted));
      await saveNow();
    } else await database.shows.update(stored.id, { name: wanted, show: { ...stored.show, name: wanted } });
    onChange();
  };
  const duplicate = async (): Promise<void> => {
    const show = structuredCloneOf(stored.show);
    show.name = `${stored.name} copy`;
    await database.shows.put(store(show, { picture: stored.picture }));
    onChange();
  };
  const remove = async (): Promise<void> => {
    await saveNow();
    await moveToBin(stored.id);
    // Something has to be open and on stage: the show that was edited last, else the demo.
    if (open) {
      const latest = await latestShow();
      await loadShow(latest?.id ?? (await restoreDemo()));
    }
    onChange();
    say({
      tone: 'info',
      text: `${stored.name} is deleted. It can be brought back for ${binDays} days, below.`,
      action: { label: 'Undo', run: () => void bringBack(stored.id).then(onChange) },
    });
  };
  return (
    <article
      className={clsx('overflow-hidden rounded-md border bg-base-200', open ? 'border-primary' : 'edge')}
      data-show={stored.name}
    >
      <button
        type="button"
        className="block aspect-video w-full bg-black"
        onClick={onOpen}
        aria-label={`Open ${stored.name}`}
      >
        {picture ? (
          <img src={picture} alt="" className="h-full w-full object-cover" />
        ) : (
          <ImageOff className="mx-auto text-[#7a7068]" aria-hidden />
        )}
      </button>
      {showsVersions && (
        <Suspense fallback={null}>
          <VersionsDialog stored={stored} onClose={() => setVersions(false)} onChange={onChange} />
        </Suspense>
      )}
      <div className="p-2.5">
        {name === null ? (
          <h2
            className="truncate font-semibold"
            title="Double-click to rename"
            onDoubleClick={() => setName(stored.name)}
          >
            {stored.name}
          </h2>
        ) : (
          <input
            autoFocus
            aria-label="Name of the show"
            className="w-full rounded border border-primary bg-base-100 px-1 outline-none"
            value={name}
            onFocus={(e) => e.target.select()}
            onChange={(e) => setName(e.target.value)}
            onBlur={() => void rename()}
            onKeyDown={(e) => {
              if (e.key === 'Enter') void rename();
              if (e.key === 'Escape') setName(null);
            }}
          />
        )}
        <p className="quiet text-2xs">
          {stored.show.scenes.length} {stored.show.scenes.length === 1 ? 'scene' : 'scenes'} ·{' '}
          {when.format(stored.updated)}
        </p>
        <div className="mt-1.5 flex">
          <button type="button" className="tool" onClick={onOpen}>
            Open
          </button>
          <button type="button" className="tool" onClick={() => setName(stored.name)}>
            Rename
          </button>
          <span className="grow" />
          <button
            type="button"
            className="tool"
            title="Versions that were kept of it"
            aria-label={`Versions of ${stored.name}`}
            onClick={() => setVersions(true)}
          >
            <History size={14} />
          </button>
          <button
            type="button"
            className="tool"
            title="Duplicate"
            aria-label={`Duplicate ${stored.name}`}
            onClick={() => void duplicate()}
          >
            <Copy size={14} />
          </button>
          <button
            type="button"
            className="tool"
            title="Export as a file"
            aria-label={`Export ${stored.name}`}
            onClick={() => void download(open ? showStore.getState().show : stored.show)}
          >
            <Download size={14} />
          </button>
          <button
            type="button"
            className="tool"
            title="Delete"
            aria-label={`Delete ${stored.name}`}
            onClick={() => void remove()}
          >
            <Trash2 size={14} />
          </button>
        </div>
      </div>
    </article>
  );
}

/** Deleted shows, which can be brought back for a while. */
function Bin({ shows, onChange }: { shows: readonly StoredShow[]; onChange(): void }) {
  if (shows.length === 0) return null;
  return (
    <section aria-label="Deleted shows" className="mt-8 border-t edge pt-4" data-testid="bin">
      <h2 className="heading mb-2">Deleted shows</h2>
      <ul className="divide-y divide-base-300 rounded-md border edge bg-base-200">
        {shows.map((stored) => (
          <li key={stored.id} className="flex items-center gap-3 px-3 py-1.5" data-binned={stored.name}>
            <span className="grow truncate">{stored.name}</span>
            <span className="quiet text-2xs">gone for good in {daysLeft(stored)} days</span>
            <button type="button" className="tool" onClick={() => void bringBack(stored.id).then(onChange)}>
              Bring back
            </button>
            <button
              type="button"
              className="tool"
              onClick={() => void deleteForGood(stored.id).then(onChange)}
            >
              Delete for good
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The shows kept in this browser, and the way in and out for files. */
export function ShowsView() {
  const shows = useShows();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const input = useRef<HTMLInputElement>(null);
  const [fault, setFault] = useState<{ file: string; error: ShowFileError } | null>(null);
  const openId = showStore((s) => s.id);
  const refresh = (): void => void queries.invalidateQueries({ queryKey: list });
  // Whatever changes the shows, here or in another window, the list follows.
  useEffect(() => {
    const changes = liveQuery(() => database.shows.toArray()).subscribe(
      () => void queries.invalidateQueries({ queryKey: list }),
    );
    return () => changes.unsubscribe();
  }, [queries]);
  useEffect(() => {
    void keepPicture().then(() => queries.invalidateQueries({ queryKey: list }));
  }, [queries]);
  const open = async (id: string): Promise<void> => {
    await loadShow(id);
    await navigate('/build');
  };
  const create = useMutation({
    mutationFn: async () => {
      const stored = store(makeShow(catalogue, 'Untitled show'));
      await database.shows.put(stored);
      await open(stored.id);
      offerStarts('this');
    },
  });
  const demo = useMutation({
    mutationFn: async () => {
      const id = await restoreDemo();
      if (id === openId) await loadShow(id);
      refresh();
      say({ tone: 'info', text: 'The demo show is as it ships. A changed one was kept beside it.' });
    },
    onError: (error) => say({ tone: 'error', text: error.message }),
  });
  const read = async (file: File): Promise<void> => {
    try {
      const { text, files } = unpackShow(new Uint8Array(await file.arrayBuffer()));
      const { show, findings } = readShow(text, catalogue);
      await keepFiles(files, show);
      setFault(null);
      await database.shows.put(store(show));
      refresh();
      say({
        tone: findings.length ? 'warning' : 'info',
        text: findings.length
          ? `Imported “${show.name}”. ${findings.length} ${findings.length === 1 ? 'remark' : 'remarks'}: ${findings[0].what}`
          : `Imported “${show.name}”.`,
      });
    } catch (error) {
      if (error instanceof ShowFileError) setFault({ file: file.name, error });
      else throw error;
    }
  };
  return (
    <main
      className="h-full overflow-y-auto p-6"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        for (const file of e.dataTransfer.files) void read(file);
      }}
    >
      <div className="mx-auto max-w-6xl">
        <div className="mb-5 flex items-end gap-2">
          <div className="grow">
            <h1 className="text-xl font-semibold">Shows</h1>
            <p className="quiet">
              Kept in this browser and saved as you work. Drop a show file here to bring it in.
            </p>
          </div>
          <button type="button" className="btn btn-primary btn-sm px-3" onClick={() => create.mutate()}>
            <FilePlus2 size={14} /> New show
          </button>
          <button
            type="button"
            className="btn btn-sm border edge bg-base-200 px-3"
            onClick={() => input.current!.click()}
          >
            <Upload size={14} /> Import
          </button>
          <button
            type="button"
            className="btn btn-sm border edge bg-base-200 px-3"
            onClick={() => demo.mutate()}
          >
            <RotateCcw size={14} /> Restore demo
          </button>
          <input
            ref={input}
            type="file"
            accept=".json,.zip,application/json,application/zip"
            className="hidden"
            data-testid="import"
            onChange={(e) => {
              const file = e.target.files?.[0];
              e.target.value = '';
              if (file) void read(file);
            }}
          />
        </div>
        {fault && (
          <div
            className="mb-5 rounded border border-l-4 border-error bg-base-200 p-3"
            role="alert"
            data-testid="import-fault"
          >
            <div className="flex">
              <h2 className="grow font-semibold">{fault.file} was not opened; nothing has changed.</h2>
              <button type="button" className="tool" onClick={() => setFault(null)}>
                Close
              </button>
            </div>
            <ul className="mt-1">
              {fault.error.findings.slice(0, 6).map((finding, k) => (
                <li key={k}>
                  {finding.where && <code className="figures text-error">{finding.where}</code>}{' '}
                  {finding.what}
                </li>
              ))}
            </ul>
          </div>
        )}
        <div className="grid grid-cols-[repeat(auto-fill,minmax(15rem,1fr))] gap-4">
          {(shows.data?.kept ?? []).map((stored) => (
            <ShowCard
              key={stored.id}
              stored={stored}
              open={stored.id === openId}
              onOpen={() => void open(stored.id)}
              onChange={refresh}
            />
          ))}
        </div>
        {shows.data?.kept.length === 0 && (
          <p className="quiet mt-10 text-center">No show is here yet. Make a new one, or restore the demo.</p>
        )}
        <Bin shows={shows.data?.binned ?? []} onChange={refresh} />
        <p className="quiet mt-8 text-2xs">
          {shows.data?.kept.some((s) => s.id === demoShowId)
            ? ''
            : 'The demo show is not in the list; “Restore demo” brings it back. '}
          Files end in .pyrvel.json and follow docs/show.schema.json; with media they end in .pyrvel.zip.
        </p>
      </div>
    </main>
  );
}
