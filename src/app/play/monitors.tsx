import clsx from 'clsx';
import { commandOf, runCommand, titleOf, applies } from '../commands/registry';
import { playSession } from '../data/play-session';
import { useShow } from '../data/show-store';
import { EngineCanvas } from '../engine/engine-canvas';
import { liveStore } from '../engine/live';
import { listenToPointer } from '../inputs/keys-pointer';
import { Bindable } from './bindable';
import { Crossfader } from './crossfader';
import { ControlInspector } from './desk/control-inspector';
import { useDeskPage } from './desk/use-desk-page';
import { FlashRow, useHeldBack } from './flash-row';
import { LayerRow } from './layer-row';
import { PictureHands } from './picture-hands';
import { TransitionRows } from './transition-rows';

const onAir = { type: 'program' } as const;
const next = { type: 'next' } as const;

/** What is on air, what comes, and what brings it: one above the other. While the desk is laid out, its settings stand below. */
export function Monitors() {
  const scenes = useShow((show) => show.scenes);
  const canvas = useShow((show) => show.canvas);
  const program = liveStore((s) => s.program);
  const blackout = liveStore((s) => s.blackout);
  const freeze = liveStore((s) => s.freeze);
  const isHeld = useHeldBack();
  const nameOf = (id: string | null): string => scenes.find((s) => s.id === id)?.name ?? '';
  const { page } = useDeskPage();
  const arranging = playSession((s) => s.arranging);
  const aspect = canvas.width / canvas.height;
  const ratio = { aspectRatio: `${canvas.width} / ${canvas.height}` };
  return (
    <div className="flex w-[22rem] shrink-0 flex-col gap-2 overflow-y-auto">
      <section aria-label="Program">
        <div className="mb-1 flex items-baseline gap-2">
          <h2 className="font-semibold text-primary">Program</h2>
          <span data-testid="program-name" className="truncate">
            {program.incoming
              ? `${nameOf(program.program)} → ${nameOf(program.incoming)}`
              : nameOf(program.program)}
          </span>
        </div>
        <div
          className={clsx(
            'relative overflow-hidden rounded-md border-2',
            blackout ? 'border-error' : freeze ? 'border-secondary' : 'border-primary',
          )}
          style={ratio}
        >
          <EngineCanvas source={onAir} className="h-full w-full" listen={listenToPointer} label="Program" />
          <PictureHands aspect={aspect} />
          {(blackout || freeze) && (
            <div className={clsx('pointer-events-none absolute inset-0', blackout && 'bg-black/60')}>
              <p
                className={clsx(
                  'absolute top-1.5 left-1.5 rounded px-1.5 text-2xs font-bold',
                  blackout ? 'bg-error text-error-content' : 'bg-secondary text-secondary-content',
                )}
                data-testid="program-state"
              >
                {blackout ? 'BLACKOUT' : 'FREEZE'}
              </p>
            </div>
          )}
          {isHeld && !blackout && !freeze && (
            <p
              className="pointer-events-none absolute top-1.5 left-1.5 rounded bg-warning px-1.5 text-2xs font-bold text-warning-content"
              data-testid="program-limited"
            >
              LIMITED
            </p>
          )}
        </div>
        <FlashRow />
      </section>
      {arranging && page ? <ControlInspector page={page} /> : <NextAndTake ratio={ratio} />}
    </div>
  );
}

/** What comes, and what brings it. */
function NextAndTake({ ratio }: { ratio: React.CSSProperties }) {
  const scenes = useShow((show) => show.scenes);
  const program = liveStore((s) => s.program);
  const nameOf = (id: string | null): string => scenes.find((s) => s.id === id)?.name ?? '';
  const canTake = applies(commandOf('stage.take-next'));
  return (
    <>
      <section aria-label="Next">
        <div className="mb-1 flex items-baseline gap-2">
          <h2 className="font-semibold text-secondary">Next</h2>
          <span className="truncate">{nameOf(program.next)}</span>
        </div>
        <div className="relative overflow-hidden rounded-md border-2 edge" style={ratio}>
          <EngineCanvas source={next} className="h-full w-full" label="Next" />
          {!program.next && (
            <p className="absolute inset-0 grid place-items-center text-white/60">
              Set a scene as next to see it run here.
            </p>
          )}
        </div>
      </section>
      <div className="flex items-stretch gap-2">
        <Bindable
          target={{ type: 'command', command: 'stage.take-next' }}
          label="Take"
          className="w-28 shrink-0"
        >
          <button
            type="button"
            className="btn btn-primary h-14 w-full text-base"
            disabled={!canTake}
            title={titleOf(commandOf('stage.take-next'))}
            onClick={() => runCommand('stage.take-next')}
          >
            {program.waiting ? 'Waits …' : 'Take'}
          </button>
        </Bindable>
        <Bindable
          target={{ type: 'master', master: 'crossfader' }}
          label="the crossfader"
          className="flex min-w-0 grow items-center"
        >
          <Crossfader />
        </Bindable>
      </div>
      <TransitionRows />
      <LayerRow />
    </>
  );
}
