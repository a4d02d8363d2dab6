import clsx from 'clsx';
import { ChevronLeft, Pause, Play, Plus } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { cueAfter, secondsLeft } from '../../../core/desk/cue-run';
import { addCue } from '../../../core/show/edit-desk';
import type { Cue } from '../../../core/document/types';
import { commandOf, runCommand, titleOf } from '../../commands/registry';
import { CommandButton } from '../../commands/command-button';
import { playSession } from '../../data/play-session';
import { editShow, useShow } from '../../data/show-store';
import { perform } from '../../engine/perform';
import { liveStore } from '../../engine/live';
import { Bindable } from '../bindable';
import { CueInspector } from './cue-inspector';
import { goWords, leftText } from './cue-words';

/** Now, next and how long until then: to be read from two metres. */
function NowAndNext({ cues }: { cues: readonly Cue[] }) {
  const state = liveStore((s) => s.cues);
  const now = cues.find(({ id }) => id === state.at);
  const next = cueAfter(cues, state);
  const left = liveStore((s) => {
    const { time, beat, bpm } = s.transport;
    const seconds = secondsLeft({ cues: cues as Cue[] }, s.cues, { time, beat, bpm });
    return seconds === null ? null : leftText(seconds);
  });
  return (
    <div className="flex flex-col gap-0.5 rounded border edge bg-base-100 p-2" data-testid="cues-now">
      <p className="truncate text-xl leading-tight font-semibold text-primary" data-testid="cue-now">
        {now?.name ?? 'Before the first cue'}
      </p>
      {now?.note && <p className="line-clamp-2 text-sm leading-snug">{now.note}</p>}
      <div className="mt-1 flex items-baseline gap-2">
        <p className="min-w-0 grow truncate text-lg leading-tight text-secondary" data-testid="cue-next">
          {next ? `→ ${next.name}` : 'The last cue'}
        </p>
        <output className="figures shrink-0 text-2xl leading-none" data-testid="cue-left">
          {state.held ? 'held' : (left ?? '')}
        </output>
      </div>
      {next && !left && <p className="quiet text-2xs">{goWords(next)}</p>}
    </div>
  );
}

/** The running order: what is now, what is next, and every step. */
export function CueList() {
  const cues = useShow((show) => show.cues);
  const scenes = useShow((show) => show.scenes);
  const state = liveStore((s) => s.cues);
  const onAir = liveStore((s) => s.program.incoming ?? s.program.program);
  const { arranging, cue: chosen } = playSession();
  const next = cueAfter(cues, state);
  const list = useRef<HTMLOListElement>(null);
  useEffect(() => {
    list.current?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' });
  }, [state.at]);
  const cue = arranging ? cues.find(({ id }) => id === chosen) : undefined;
  const add = (): void => {
    const id = editShow((show) => addCue(show, cue?.id ?? null, onAir));
    if (id) playSession.setState({ cue: id, arranging: true });
  };
  return (
    <section aria-label="Running order" className="flex min-h-0 grow flex-col gap-1.5">
      <NowAndNext cues={cues} />
      <div className="flex gap-1">
        <Bindable target={{ type: 'command', command: 'play.back' }} label="Back a cue">
          <CommandButton id="play.back" icon={ChevronLeft} className="h-12 w-11 justify-center border edge" />
        </Bindable>
        <Bindable target={{ type: 'command', command: 'play.go' }} label="Go" className="grow">
          <button
            type="button"
            className="btn btn-primary h-12 w-full text-lg"
            disabled={!next}
            title={titleOf(commandOf('play.go'))}
            onClick={() => runCommand('play.go')}
          >
            Go
          </button>
        </Bindable>
        <Bindable target={{ type: 'command', command: 'play.hold' }} label="Hold the running order">
          <CommandButton
            id="play.hold"
            icon={state.held ? Play : Pause}
            label={state.held ? 'Go on with the running order' : 'Hold the running order'}
            isOn={state.held !== null}
            className={clsx('h-12 w-11 justify-center border edge', state.held && 'text-primary')}
          />
        </Bindable>
      </div>
      {cue ? (
        <CueInspector cue={cue} />
      ) : (
        <ol ref={list} className="flex min-h-0 grow flex-col gap-0.5 overflow-y-auto" aria-label="Cues">
          {cues.map((one, k) => (
            <li key={one.id}>
              <button
                type="button"
                className={clsx(
                  'flex min-h-11 w-full items-center gap-2 rounded border px-2 py-1 text-left',
                  one.id === state.at
                    ? 'border-primary bg-primary/10'
                    : one.id === next?.id
                      ? 'border-secondary'
                      : 'border-transparent hover:bg-base-300',
                )}
                aria-current={one.id === state.at ? 'step' : undefined}
                data-cue={one.name}
                title={arranging ? `Settings of ${one.name}` : `Goes to ${one.name}`}
                onClick={() =>
                  arranging
                    ? playSession.setState({ cue: one.id })
                    : perform({ type: 'cue-jump', cue: one.id })
                }
              >
                <span className="figures quiet w-5 shrink-0 text-right text-2xs">{k + 1}</span>
                <span className="min-w-0 grow">
                  <span className="block truncate font-semibold">{one.name}</span>
                  <span className="quiet block truncate text-2xs">
                    {goWords(one)}
                    {one.scene && scenes.some(({ id, name }) => id === one.scene && name !== one.name)
                      ? ` · ${scenes.find(({ id }) => id === one.scene)!.name}`
                      : ''}
                    {one.back ? ' · loop' : ''}
                  </span>
                </span>
              </button>
            </li>
          ))}
          {cues.length === 0 && (
            <li className="quiet px-1">No cues yet. Add one for each step of the evening.</li>
          )}
          {(arranging || cues.length === 0) && (
            <li>
              <button type="button" className="tool h-11 w-full justify-center" onClick={add}>
                <Plus size={14} /> Add a cue
              </button>
            </li>
          )}
        </ol>
      )}
    </section>
  );
}
