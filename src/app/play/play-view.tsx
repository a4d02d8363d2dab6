import clsx from 'clsx';
import { useShow } from '../data/show-store';
import { transitionSeconds } from '../../core/show/transition';
import { applies, commandOf, runCommand, titleOf } from '../commands/registry';
import { engine } from '../engine/client';
import { EngineCanvas } from '../engine/engine-canvas';
import { listenToPointer } from '../inputs/keys-pointer';
import { liveStore } from '../engine/live';
import { dropFocus } from '../parts/live-button';
import { Crossfader } from './crossfader';
import { ScenePicture } from './scene-picture';
import { TransitionRows } from './transition-rows';

const onAir = { type: 'program' } as const;
const next = { type: 'next' } as const;

function SceneButton({ id, name, seconds }: { id: string; name: string; seconds: number }) {
  const program = liveStore((s) => s.program);
  const leaving = program.program === id && program.incoming !== null;
  const coming = program.incoming === id;
  const on = program.program === id && !leaving;
  const isNext = program.next === id;
  return (
    <div
      className={clsx(
        'group relative overflow-hidden rounded-md border-2',
        on || coming ? 'border-primary' : isNext ? 'border-secondary' : 'edge',
      )}
      data-scene-button={name}
      data-state={coming ? 'coming' : leaving ? 'leaving' : on ? 'on' : isNext ? 'next' : 'idle'}
    >
      <button
        type="button"
        className="block aspect-video w-full text-left"
        aria-label={`Fade to ${name}`}
        onClick={() => engine().perform({ type: 'take', scene: id, seconds })}
        onContextMenu={(e) => {
          e.preventDefault();
          engine().perform({ type: 'next', scene: id });
        }}
      >
        <ScenePicture sceneId={id} />
      </button>
      {(coming || leaving) && (
        <span
          className="absolute bottom-8 left-0 h-1 bg-primary"
          style={{ width: `${(coming ? program.fade : 1 - program.fade) * 100}%` }}
        />
      )}
      <div className="flex h-8 items-center gap-2 bg-base-200 px-2.5">
        <span className="grow truncate font-semibold">{name}</span>
        {on || coming ? (
          <span className="text-2xs font-semibold text-primary">on stage</span>
        ) : (
          <button
            type="button"
            className={clsx('tool text-2xs', isNext && 'text-secondary')}
            aria-pressed={isNext}
            onClick={() => engine().perform({ type: 'next', scene: isNext ? null : id })}
          >
            {isNext ? 'next' : 'Set next'}
          </button>
        )}
      </div>
    </div>
  );
}

/** Perform: what is on stage, what comes next, and a button for each scene. */
export function PlayView() {
  const scenes = useShow((show) => show.scenes);
  const canvas = useShow((show) => show.canvas);
  const seconds = useShow(transitionSeconds);
  const program = liveStore((s) => s.program);
  const nameOf = (id: string | null): string => scenes.find((s) => s.id === id)?.name ?? '';
  const canTake = applies(commandOf('stage.take-next'));
  const ratio = { aspectRatio: `${canvas.width} / ${canvas.height}` };
  return (
    <main className="flex h-full flex-col gap-4 overflow-y-auto p-4" onClick={dropFocus}>
      <div className="flex items-stretch justify-center gap-4">
        <section aria-label="Program" className="min-w-0 flex-1">
          <div className="mb-1 flex items-baseline gap-2">
            <h2 className="font-semibold text-primary">Program</h2>
            <span data-testid="program-name">
              {program.incoming
                ? `${nameOf(program.program)} → ${nameOf(program.incoming)}`
                : nameOf(program.program)}
            </span>
          </div>
          <div className="overflow-hidden rounded-md border-2 border-primary" style={ratio}>
            <EngineCanvas source={onAir} className="h-full w-full" listen={listenToPointer} label="Program" />
          </div>
        </section>
        <div className="flex w-36 shrink-0 flex-col justify-center gap-2">
          <button
            type="button"
            className="btn btn-primary h-14 w-full text-base"
            disabled={!canTake}
            title={titleOf(commandOf('stage.take-next'))}
            onClick={() => runCommand('stage.take-next')}
          >
            {program.waiting ? 'Waits …' : 'Take'}
          </button>
          <Crossfader />
          <TransitionRows />
        </div>
        <section aria-label="Next" className="min-w-0 flex-1">
          <div className="mb-1 flex items-baseline gap-2">
            <h2 className="font-semibold text-secondary">Next</h2>
            <span>{nameOf(program.next)}</span>
          </div>
          <div className="relative overflow-hidden rounded-md border-2 edge" style={ratio}>
            <EngineCanvas source={next} className="h-full w-full" label="Next" />
            {!program.next && (
              <p className="quiet absolute inset-0 grid place-items-center">
                Set a scene as next to see it run here.
              </p>
            )}
          </div>
        </section>
      </div>
      <section aria-label="Scenes">
        <p className="quiet mb-2">Click a scene to take it on stage. “Set next” previews it on the right.</p>
        <div className="grid grid-cols-[repeat(auto-fill,minmax(14rem,1fr))] gap-3">
          {scenes.map((scene) => (
            <SceneButton key={scene.id} id={scene.id} name={scene.name} seconds={seconds} />
          ))}
        </div>
      </section>
    </main>
  );
}
