import { homeSpec, type ExportSpec, type VideoFormat } from '../../core/export/spec';
import type { ExportEvent } from '../../engine/protocol/export';
import { recordingStore } from '../data/recording-store';
import { showStore } from '../data/show-store';
import { engine } from '../engine/client';
import { say } from '../parts/notices';
import { dropFolder, folderOf } from './job-files';
import { addJob } from './job-queue';

const two = (n: number): string => String(n).padStart(2, '0');

/** What is recorded: the whole canvas at its rate, as a video that is encoded quickly. */
function liveSpec(format: Partial<VideoFormat>): ExportSpec {
  const { show } = showStore.getState();
  const home = homeSpec(show, show.scenes[0]);
  const now = new Date();
  const clock = `${two(now.getHours())}${two(now.getMinutes())}`;
  const day = `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
  return {
    ...home,
    name: `${show.name} ${day} ${clock}`,
    // What is recorded is what was played: no other source has to be looked up when it is written.
    source: { type: 'scene', scene: show.scenes[0].id, node: null },
    range: { type: 'whole' },
    fps: Math.min(60, home.fps),
    width: home.width - (home.width % 2),
    height: home.height - (home.height % 2),
    format: { ...(home.format as VideoFormat), effort: 'realtime', ...format },
  };
}

/** Begins to record what is on air. */
export async function startRecording(format: Partial<VideoFormat> = {}): Promise<void> {
  if (recordingStore.getState().recording) return;
  const job = crypto.randomUUID();
  const spec = liveSpec(format);
  const { show } = showStore.getState();
  const folder = await folderOf(job);
  const client = engine();
  const set = (change: object): void =>
    recordingStore.setState(({ recording }) => ({ recording: recording && { ...recording, ...change } }));
  const off = client.on('export', (message) => {
    if (message.job !== job) return;
    const { event } = message;
    if (event.what === 'progress') set({ frames: event.frames });
    else if (event.what === 'dropped') set({ dropped: event.frames });
    else if (event.what === 'recorded' || event.what === 'failed') {
      off();
      recordingStore.setState({ recording: null });
      void end(job, spec, show, event);
    }
  });
  recordingStore.setState({
    recording: { job, name: spec.name, since: performance.now(), frames: 0, dropped: 0, isEnding: false },
  });
  client.send({ type: 'live-recording', order: { job, spec, folder } });
}

async function end(
  job: string,
  spec: ExportSpec,
  show: ReturnType<typeof showStore.getState>['show'],
  event: Extract<ExportEvent, { what: 'recorded' | 'failed' }>,
): Promise<void> {
  if (event.what === 'failed') {
    say({ tone: 'error', text: `The recording ended. ${event.message}` });
    await dropFolder(job);
    return;
  }
  const { plan, dropped } = event;
  const message =
    dropped > 0
      ? `${dropped} of ${plan.count} frames were left out, since the stage needed the time.`
      : 'No frame was left out.';
  await addJob({ id: job, spec, show, goal: null, plan, isLive: true, message });
}

export function stopRecording(): void {
  const { recording } = recordingStore.getState();
  if (!recording || recording.isEnding) return;
  recordingStore.setState({ recording: { ...recording, isEnding: true } });
  engine().send({ type: 'live-recording', order: null });
}
