import clsx from 'clsx';
import { ChevronLeft, OctagonAlert, Pause, Play, Snowflake, SunDim } from 'lucide-react';
import { useState } from 'react';
import { deskColumns } from '../../core/desk/grid';
import { cueAfter } from '../../core/desk/cue-run';
import { mayPerform, type DeskRole } from '../../core/machines/roles';
import { transitionSeconds } from '../../core/show/transition';
import { playSession } from '../data/play-session';
import { useShow } from '../data/show-store';
import { liveStore } from '../engine/live';
import { perform } from '../engine/perform';
import { DeskControlView } from '../play/desk/desk-control';
import { useDeskPage } from '../play/desk/use-desk-page';
import { goWords } from '../play/cues/cue-words';
import { ToSpare } from '../machines/to-spare';
import { remoteStore } from './remote-session';

const rowPixels = 60;
const gapPixels = 8;
type Tab = 'Desk' | 'Cues' | 'Scenes';

/** What is on air: a small picture, its name, and what keeps it from being seen. */
function Program() {
  const picture = remoteStore((s) => s.picture);
  const { width, height } = useShow((show) => show.canvas);
  const scenes = useShow((show) => show.scenes);
  const { program, incoming, next } = liveStore((s) => s.program);
  const blackout = liveStore((s) => s.blackout);
  const freeze = liveStore((s) => s.freeze);
  const nameOf = (id: string | null): string => scenes.find((scene) => scene.id === id)?.name ?? '';
  return (
    <section aria-label="Program" className="flex min-w-0 items-center gap-3">
      <div
        className={clsx(
          'relative h-20 shrink-0 overflow-hidden rounded border-2 bg-black',
          blackout ? 'border-error' : freeze ? 'border-secondary' : 'border-primary',
        )}
        style={{ aspectRatio: `${width} / ${height}` }}
      >
        {picture && (
          <img src={picture} alt="Program" className="h-full w-full" data-testid="remote-picture" />
        )}
        {(blackout || freeze) && (
          <p
            className={clsx(
              'absolute top-1 left-1 rounded px-1 text-2xs font-bold',
              blackout ? 'bg-error text-error-content' : 'bg-secondary text-secondary-content',
            )}
          >
            {blackout ? 'BLACKOUT' : 'FREEZE'}
          </p>
        )}
      </div>
      <div className="min-w-0">
        <p className="truncate text-lg font-semibold text-primary" data-testid="remote-program">
          {incoming ? `${nameOf(program)} → ${nameOf(incoming)}` : nameOf(program)}
        </p>
        {next && <p className="truncate text-secondary">→ {nameOf(next)}</p>}
      </div>
    </section>
  );
}

/** Says that somebody is away, and since nothing that is done here arrives, says so largely. */
function Away() {
  const isLinked = remoteStore((s) => s.isLinked);
  const hasMain = remoteStore((s) => s.hasMain);
  const spare = remoteStore((s) => s.spare);
  if (isLinked && hasMain) return null;
  return (
    <div className="flex flex-wrap items-center justify-center gap-3 bg-error px-3 py-1.5 font-semibold text-error-content">
      <p role="alert">
        {isLinked
          ? 'No window performs on the main machine. It comes back here by itself.'
          : 'No link to the main machine. It is tried again all the time.'}
      </p>
      {!isLinked && <ToSpare addresses={spare} as="remote" />}
    </div>
  );
}

function Page({ isPhone }: { isPhone: boolean }) {
  const { page, atHand } = useDeskPage();
  const columns = isPhone ? deskColumns / 2 : deskColumns;
  return (
    <div className="flex min-h-0 grow flex-col gap-2">
      <div role="tablist" aria-label="Pages of the desk" className="flex shrink-0 gap-1 overflow-x-auto">
        {atHand.map((one) => (
          <button
            key={one.id}
            type="button"
            role="tab"
            aria-selected={one.id === page?.id}
            className={clsx(
              'h-11 shrink-0 rounded border px-3',
              one.id === page?.id ? 'border-primary text-primary' : 'quiet edge',
            )}
            onClick={() => playSession.setState({ page: one.id })}
          >
            {one.name}
          </button>
        ))}
      </div>
      {page && page.controls.length > 0 ? (
        <div
          className={clsx('grid overflow-y-auto pb-2', isPhone ? 'content-start' : 'min-h-0 grow')}
          style={{
            gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`,
            // On a tablet the page takes all the height there is.
            gridAutoRows: isPhone ? rowPixels : `minmax(${rowPixels}px, 8rem)`,
            gridAutoFlow: 'dense',
            gap: gapPixels,
          }}
        >
          {page.controls.map((control) => {
            const [w, h] = control.size;
            const [x, y] = control.place;
            // A phone has half of the columns: controls keep their size, and lie one after the other.
            const style = isPhone
              ? { gridColumn: `span ${Math.min(columns, w)}`, gridRow: `span ${h}` }
              : { gridColumn: `${x + 1} / span ${w}`, gridRow: `${y + 1} / span ${h}` };
            return (
              <div
                key={control.id}
                className="min-h-0 min-w-0"
                style={style}
                data-desk-control={control.name}
              >
                <DeskControlView control={control} />
              </div>
            );
          })}
        </div>
      ) : (
        <p className="quiet grid grow place-items-center px-8 text-center">
          No control of this scene lies on the desk. They are put there on the main machine.
        </p>
      )}
    </div>
  );
}

function Cues({ role }: { role: DeskRole }) {
  const cues = useShow((show) => show.cues);
  const state = liveStore((s) => s.cues);
  const next = cueAfter(cues, state);
  return (
    <ol className="flex min-h-0 grow flex-col gap-1 overflow-y-auto" aria-label="Cues">
      {cues.map((cue, k) => (
        <li key={cue.id}>
          <button
            type="button"
            disabled={!mayPerform(role, 'cue-jump')}
            aria-current={cue.id === state.at ? 'step' : undefined}
            className={clsx(
              'flex min-h-13 w-full items-center gap-3 rounded border px-3 py-1 text-left',
              cue.id === state.at
                ? 'border-primary bg-primary/10'
                : cue.id === next?.id
                  ? 'border-secondary'
                  : 'border-transparent bg-base-200',
            )}
            onClick={() => perform({ type: 'cue-jump', cue: cue.id })}
          >
            <span className="figures quiet w-6 text-right">{k + 1}</span>
            <span className="min-w-0 grow">
              <span className="block truncate text-base font-semibold">{cue.name}</span>
              <span className="quiet block truncate text-2xs">{goWords(cue)}</span>
            </span>
          </button>
        </li>
      ))}
      {cues.length === 0 && <li className="quiet">This show has no cues.</li>}
    </ol>
  );
}

function Scenes({ role }: { role: DeskRole }) {
  const show = useShow((now) => now);
  const { program, incoming, next } = liveStore((s) => s.program);
  const seconds = transitionSeconds(show);
  const onAir = incoming ?? program;
  return (
    <ul
      className="grid min-h-0 grow auto-rows-min grid-cols-2 gap-2 overflow-y-auto md:grid-cols-4"
      aria-label="Scenes"
    >
      {show.scenes.map(({ id, name }) => (
        <li key={id}>
          <button
            type="button"
            disabled={!mayPerform(role, 'take')}
            aria-pressed={id === onAir}
            className={clsx(
              'h-16 w-full truncate rounded border-2 bg-base-200 px-2 text-base font-semibold',
              id === onAir ? 'border-primary text-primary' : id === next ? 'border-secondary' : 'edge',
            )}
            onClick={() => perform({ type: 'take', scene: id, seconds })}
          >
            {name}
          </button>
        </li>
      ))}
    </ul>
  );
}

/** What has to be at hand whatever is looked at. */
function Hands({ role }: { role: DeskRole }) {
  const cues = useShow((show) => show.cues);
  const state = liveStore((s) => s.cues);
  const blackout = liveStore((s) => s.blackout);
  const freeze = liveStore((s) => s.freeze);
  const next = cueAfter(cues, state);
  const key =
    'flex h-14 min-w-14 items-center justify-center rounded border-2 edge bg-base-200 disabled:opacity-40';
  return (
    <div className="flex gap-2" role="group" aria-label="Running order and stage">
      <button
        type="button"
        className={key}
        aria-label="Back a cue"
        onClick={() => perform({ type: 'cue', do: 'back' })}
      >
        <ChevronLeft />
      </button>
      <button
        type="button"
        className="btn btn-primary h-14 min-w-0 grow text-xl"
        disabled={!next}
        onClick={() => perform({ type: 'cue', do: 'go' })}
      >
        <span className="truncate">{next ? `Go · ${next.name}` : 'Go'}</span>
      </button>
      <button
        type="button"
        className={clsx(key, state.held !== null && 'text-primary')}
        aria-label={state.held ? 'Go on with the running order' : 'Hold the running order'}
        onClick={() => perform({ type: 'cue', do: state.held ? 'resume' : 'hold' })}
      >
        {state.held ? <Play /> : <Pause />}
      </button>
      {role === 'all' && (
        <>
          <button
            type="button"
            aria-label="Freeze"
            aria-pressed={freeze}
            className={clsx(key, freeze && 'bg-secondary! text-secondary-content')}
            onClick={() => perform({ type: 'freeze' })}
          >
            <Snowflake />
          </button>
          <button
            type="button"
            aria-label="Blackout"
            aria-pressed={blackout}
            className={clsx(key, blackout && 'bg-error! text-error-content')}
            onClick={() => perform({ type: 'blackout' })}
          >
            <SunDim />
          </button>
        </>
      )}
      <button
        type="button"
        className={clsx(key, 'text-error')}
        aria-label="Panic: the home picture at once"
        title="The home picture at once"
        onClick={() => perform({ type: 'panic' })}
      >
        <OctagonAlert />
      </button>
    </div>
  );
}

/** The desk of a show on another machine than the main one. */
export function RemoteDesk() {
  const role = remoteStore((s) => s.role)!;
  const hasShow = remoteStore((s) => s.hasShow);
  const name = useShow((show) => show.name);
  const [tab, setTab] = useState<Tab>('Desk');
  const isPhone = window.matchMedia('(max-width: 640px)').matches;
  const tabs: Tab[] = ['Desk', 'Cues', 'Scenes'];
  return (
    <main className="flex h-full flex-col text-sm">
      <Away />
      {!hasShow ? (
        <p className="quiet grid grow place-items-center">The show is on its way …</p>
      ) : (
        <div className="flex min-h-0 grow flex-col gap-3 p-3">
          <div className="flex items-center gap-3">
            <div className="min-w-0 grow">
              <Program />
            </div>
            <h1 className="quiet truncate max-sm:hidden">{name}</h1>
          </div>
          {role !== 'look' && <Hands role={role} />}
          <div role="tablist" aria-label="What is shown" className="grid shrink-0 grid-cols-3 gap-1">
            {tabs.map((one) => (
              <button
                key={one}
                type="button"
                role="tab"
                aria-selected={one === tab}
                className={clsx(
                  'h-11 border-b-2 text-base',
                  one === tab ? 'border-primary font-semibold' : 'quiet edge',
                )}
                onClick={() => setTab(one)}
              >
                {one}
              </button>
            ))}
          </div>
          {tab === 'Cues' ? (
            <Cues role={role} />
          ) : tab === 'Scenes' ? (
            <Scenes role={role} />
          ) : (
            // Who only looks sees where everything stands, and moves nothing.
            <div className="flex min-h-0 grow flex-col" inert={!mayPerform(role, 'desk')}>
              <Page isPhone={isPhone} />
            </div>
          )}
        </div>
      )}
    </main>
  );
}
