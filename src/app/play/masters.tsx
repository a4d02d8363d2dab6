import clsx from 'clsx';
import { Circle, Lock, LockOpen, OctagonAlert, Play, Trash2 } from 'lucide-react';
import { movesWithout, trackOf } from '../../core/desk/moves';
import type { Hit } from '../../core/desk/command';
import { CommandButton } from '../commands/command-button';
import type { Command } from '../commands/command';
import { commandOf, runCommand, titleOf } from '../commands/registry';
import { lockStore } from '../data/lock';
import { playSession } from '../data/play-session';
import { editShow, useShow } from '../data/show-store';
import { perform } from '../engine/perform';
import { liveStore } from '../engine/live';
import { SelectField } from '../parts/field';
import { useHold } from '../parts/use-hold';
import { Bindable } from './bindable';
import { useLever } from './use-grip';

/** A momentary pad on the whole picture. */
function HitPad({ hit, label, help }: { hit: Hit; label: string; help: string }) {
  const { held, handlers } = useHold((on) => perform({ type: 'hit', hit, on }));
  return (
    <Bindable target={{ type: 'hit', hit }} label={label} className="min-w-0 flex-1">
      <button
        type="button"
        aria-pressed={held}
        title={help}
        data-hit={hit}
        className={clsx(
          'h-11 w-full touch-none rounded border-2 text-2xs font-semibold',
          held ? 'border-primary bg-primary text-primary-content' : 'edge bg-base-100 hover:border-primary',
        )}
        {...handlers}
      >
        {label}
      </button>
    </Bindable>
  );
}

/** Freeze while it is held. */
function FreezePad() {
  const freeze = liveStore((s) => s.freeze);
  const { handlers } = useHold((on) => perform({ type: 'freeze', on }));
  return (
    <button
      type="button"
      aria-pressed={freeze}
      title="Holds the picture while it is held"
      className={clsx(
        'h-11 min-w-0 flex-1 touch-none rounded border-2 text-2xs font-semibold',
        freeze
          ? 'border-secondary bg-secondary text-secondary-content'
          : 'edge bg-base-100 hover:border-primary',
      )}
      {...handlers}
    >
      Hold
    </button>
  );
}

function Master({ master, label, help }: { master: 'speed' | 'motion'; label: string; help: string }) {
  const put = (to: number): void => perform({ type: 'master', master, value: to });
  const { value, lever } = useLever(
    liveStore((s) => s.masters[master]),
    put,
  );
  return (
    <Bindable target={{ type: 'master', master }} label={label} className="flex h-9 items-center gap-2">
      <button
        type="button"
        className={clsx('w-14 shrink-0 text-left', value !== 1 && 'text-primary')}
        title={`${help} Click: as it was made.`}
        onClick={() => put(1)}
      >
        {label}
      </button>
      <input
        type="range"
        className="range min-w-0 grow range-primary"
        aria-label={label}
        min={0}
        max={2}
        step={0.01}
        {...lever}
      />
      <output className="figures w-11 shrink-0 text-right text-2xs whitespace-nowrap">
        {Math.round(value * 100)} %
      </output>
    </Bindable>
  );
}

function Bar({ id, icon, className }: { id: Command['id']; icon: typeof Lock; className?: string }) {
  return (
    <Bindable target={{ type: 'command', command: id }} label={commandOf(id).label}>
      <CommandButton id={id} icon={icon} className={clsx('h-9', className)} />
    </Bindable>
  );
}

/** Recorded moves: record, play, clear what one track did. */
function Moves() {
  const moves = useShow((show) => show.moves);
  const desk = useShow((show) => show.desk);
  const { recording, replaying, fresh } = liveStore((s) => s.moves);
  const nameOf = (track: string): string => {
    const [kind, id] = track.split(' ');
    const found = desk.flatMap(({ controls }) => controls).find((control) => control.id === id);
    return kind === 'desk' ? (found?.name ?? 'gone') : kind[0].toUpperCase() + kind.slice(1);
  };
  const tracks = [...new Set(moves.map(trackOf))];
  const end = moves[moves.length - 1]?.at ?? 0;
  return (
    <div className="flex items-center gap-1" role="group" aria-label="Moves">
      <Bar id="play.record" icon={Circle} className={clsx(recording && 'bg-error text-error-content')} />
      <Bar id="play.replay" icon={Play} className={clsx(replaying && 'text-primary')} />
      <span className="quiet min-w-0 grow truncate text-2xs" data-testid="moves">
        {recording
          ? `${fresh} moves …`
          : moves.length
            ? `${moves.length} moves, ${Math.floor(end / 60)}:${String(Math.floor(end % 60)).padStart(2, '0')}`
            : 'No moves yet'}
      </span>
      {moves.length > 0 && !recording && (
        <div className="relative">
          <Trash2 size={13} className="quiet pointer-events-none absolute top-2.5 left-2" />
          <SelectField
            label="Clear moves"
            value=""
            options={[
              ['', ''],
              ['all', 'Clear all moves'],
              ...tracks.map((track) => [track, `Clear ${nameOf(track)}`] as const),
            ]}
            className="h-9! w-9 text-transparent [&>option]:text-base-content"
            onChange={(track) =>
              track &&
              editShow((show) => void (show.moves = movesWithout(show.moves, track === 'all' ? null : track)))
            }
          />
        </div>
      )}
    </div>
  );
}

/** What a panic brings: chosen while the desk is laid out. */
function HomePicture() {
  const scenes = useShow((show) => show.scenes);
  const snapshots = useShow((show) => show.snapshots);
  const home = useShow((show) => show.home);
  return (
    <div className="flex items-center gap-1" role="group" aria-label="Home picture">
      <span className="quiet w-14 shrink-0 text-2xs">Home</span>
      <SelectField
        label="Scene of the home picture"
        value={home.scene ?? ''}
        options={[['', 'The first scene'], ...scenes.map(({ id, name }) => [id, name] as const)]}
        className="h-9! min-w-0 flex-1"
        onChange={(id) => editShow((show) => void (show.home.scene = id || null))}
      />
      <SelectField
        label="Snapshot of the home picture"
        value={home.snapshot ?? ''}
        options={[['', 'Desk home'], ...snapshots.map(({ id, name }) => [id, name] as const)]}
        className="h-9! min-w-0 flex-1"
        onChange={(id) => editShow((show) => void (show.home.snapshot = id || null))}
      />
    </div>
  );
}

/** What holds for the whole picture: hits, masters, moves, lock and panic. */
export function Masters() {
  const locked = lockStore((s) => s.locked);
  const arranging = playSession((s) => s.arranging);
  return (
    <section aria-label="Masters" className="flex shrink-0 flex-col gap-1.5">
      <div className="flex gap-1" role="group" aria-label="Hits">
        <HitPad
          hit="flash"
          label="Flash"
          help="White while it is held, never more than three times a second"
        />
        <HitPad hit="invert" label="Invert" help="Inverted while it is held" />
        <HitPad hit="strobe" label="Strobe" help="Dark three times a second while it is held" />
        <FreezePad />
      </div>
      <Master
        master="speed"
        label="Speed"
        help="How fast the picture goes; the beat and the sound stay as they are."
      />
      <Master master="motion" label="Motion" help="How far motions of all controls go." />
      <Moves />
      {arranging && <HomePicture />}
      <div className="flex gap-1">
        <Bindable target={{ type: 'command', command: 'play.panic' }} label="Panic" className="grow">
          <button
            type="button"
            className="btn h-11 w-full border-2 border-error bg-base-100 text-error hover:bg-error hover:text-error-content"
            title={titleOf(commandOf('play.panic'))}
            onClick={() => runCommand('play.panic')}
          >
            <OctagonAlert size={16} /> Panic
          </button>
        </Bindable>
        <button
          type="button"
          className={clsx('btn h-11 w-14 border edge px-0', locked ? 'btn-secondary' : 'bg-base-100')}
          aria-label="Lock the show"
          aria-pressed={locked}
          title={titleOf(commandOf('play.lock'))}
          onClick={() => runCommand('play.lock')}
        >
          {locked ? <Lock size={16} /> : <LockOpen size={16} />}
        </button>
      </div>
    </section>
  );
}
