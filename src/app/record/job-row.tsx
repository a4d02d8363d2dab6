import clsx from 'clsx';
import { Download, Pause, Play, RotateCcw, Trash2 } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { pieceCount } from '../../core/export/schedule';
import { endingOf, type ExportSpec } from '../../core/export/spec';
import type { StoredJob } from '../data/db';
import { saveAs } from '../parts/save-as';
import { say } from '../parts/notices';
import { resultOf } from '../exports/job-files';
import { pauseJob, removeJob, resumeJob, runningStore } from '../exports/job-queue';

/** `1:05:09`, `4:07` */
export function duration(seconds: number): string {
  const whole = Math.max(0, Math.round(seconds));
  const [h, m, s] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60];
  const two = (n: number): string => String(n).padStart(2, '0');
  return h ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`;
}

function describe({ format, width, height, fps, subframes, supersample }: ExportSpec): string {
  const kind =
    format.type === 'video'
      ? `${format.codec.toUpperCase()} in ${format.container === 'webm' ? 'WebM' : 'MP4'}${format.sound === 'none' ? '' : `, ${format.sound}`}${format.alpha ? ', alpha' : ''}`
      : format.type === 'images'
        ? format.image.toUpperCase()
        : endingOf(format).toUpperCase();
  const more = [subframes > 1 && `${subframes} subframes`, supersample > 1 && `${supersample}x supersampled`];
  const size = format.type === 'pixels' ? [] : [`${width} x ${height}`];
  return [kind, ...size, `${Number(fps.toFixed(3))} fps`, ...more].filter(Boolean).join(' · ');
}

function Picture({ job }: { job: StoredJob }) {
  const running = runningStore((s) => (s.running?.id === job.id ? s.running.picture : null));
  const picture = running ?? job.picture;
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (!picture || !canvas.current) return;
    const { width, height, rgba } = picture;
    Object.assign(canvas.current, { width, height });
    canvas.current.getContext('2d')!.putImageData(new ImageData(rgba, width, height), 0, 0);
  }, [picture]);
  return (
    <div className="grid h-14 w-24 shrink-0 place-items-center overflow-hidden rounded bg-black">
      {picture && (
        <canvas ref={canvas} className="max-h-full max-w-full" aria-label="Last frame" role="img" />
      )}
    </div>
  );
}

const stateNames: Record<StoredJob['state'], string> = {
  recording: 'Recording',
  waiting: 'Waiting',
  running: 'Running',
  paused: 'Paused',
  failed: 'Failed',
  done: 'Done',
};

async function save(job: StoredJob): Promise<void> {
  try {
    const { file, name } = await resultOf(job);
    saveAs(file, name);
  } catch {
    say({ tone: 'error', text: `${job.spec.name} is not in this browser any more. Export it again.` });
  }
}

/** One export: how far it is, and what can be done with it. */
export function JobRow({ job }: { job: StoredJob }) {
  const running = runningStore((s) => (s.running?.id === job.id ? s.running : null));
  const { state, plan, spec } = job;
  const frames = running?.frames ?? job.frames;
  const total = plan?.count ?? 0;
  const share = state === 'done' ? 1 : total ? frames / total : 0;
  const left = running && running.rate > 0 ? (total - frames) / running.rate : null;
  const progress =
    state === 'done'
      ? `${total} ${total === 1 ? 'frame' : 'frames'} · ${duration(job.seconds)}`
      : running?.isJoining
        ? `Writing ${pieceCount(spec, plan!)} pieces`
        : state === 'recording'
          ? ''
          : `${frames} of ${total || '?'} frames`;
  return (
    <li className="flex gap-3 rounded border edge bg-base-200 p-2" data-job={spec.name} data-state={state}>
      <Picture job={job} />
      <div className="min-w-0 grow">
        <div className="flex items-baseline gap-2">
          <span className="truncate font-semibold">{spec.name}</span>
          <span className="quiet min-w-0 truncate text-2xs">
            {describe(spec)} · {job.showName}
          </span>
        </div>
        <progress
          className={clsx(
            'progress mt-1 h-1.5 w-full',
            state === 'failed'
              ? 'progress-error'
              : state === 'done'
                ? 'progress-success'
                : 'progress-primary',
          )}
          max={1}
          value={share}
          aria-label={`Progress of ${spec.name}`}
        />
        <div className="figures flex gap-3 text-2xs" data-testid="job-state">
          <span className={clsx(state === 'failed' && 'text-error', state === 'running' && 'text-primary')}>
            {stateNames[state]}
          </span>
          <span className="quiet">{progress}</span>
          {running && running.rate > 0 && !running.isJoining && (
            <>
              <span className="quiet">{running.rate.toFixed(1)} frames a second</span>
              {left !== null && <span className="quiet">{duration(left)} left</span>}
            </>
          )}
        </div>
        {job.message && (
          <p className={clsx('text-2xs', state === 'failed' ? 'text-error' : 'quiet')} role="status">
            {job.message}
          </p>
        )}
      </div>
      <div className="flex shrink-0 items-start">
        {state === 'done' && !job.goal && (
          <button
            type="button"
            className="tool text-primary"
            onClick={() => void save(job)}
            title="Saves the finished file"
          >
            <Download size={15} /> Save
          </button>
        )}
        {(state === 'running' || state === 'waiting') && (
          <button
            type="button"
            className="tool"
            aria-label={`Pause ${spec.name}`}
            title="Pauses; what is finished stays"
            onClick={() => void pauseJob(job.id)}
          >
            <Pause size={15} />
          </button>
        )}
        {(state === 'paused' || state === 'failed') && (
          <button
            type="button"
            className="tool"
            aria-label={state === 'paused' ? `Go on with ${spec.name}` : `Try ${spec.name} again`}
            title="Goes on where it was"
            onClick={() => void resumeJob(job)}
          >
            {state === 'paused' ? <Play size={15} /> : <RotateCcw size={15} />}
          </button>
        )}
        {/* What is being recorded is ended above. */}
        {state !== 'recording' && (
          <button
            type="button"
            className="tool"
            aria-label={state === 'done' ? `Remove ${spec.name}` : `Cancel ${spec.name}`}
            title={state === 'done' ? 'Removes it from the list' : 'Cancels it and drops what is finished'}
            onClick={() => void removeJob(job.id)}
          >
            <Trash2 size={15} />
          </button>
        )}
      </div>
    </li>
  );
}
