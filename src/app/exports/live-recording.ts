import type { ExportPlan } from '../../core/export/schedule';
import { homeSpec, type ExportSpec, type VideoFormat } from '../../core/export/spec';
import { recordingStore } from '../data/recording-store';
import { showStore } from '../data/show-store';
import { engine } from '../engine/client';
import { say } from '../parts/notices';
import { folderOf, holdFolder } from './job-files';
import { cutOff, keepJob, recorded, removeJob } from './job-queue';

const two = (n: number): string => String(n).padStart(2, '0');

/** What is recorded: the whole canvas at its rate, as a video that is encoded quickly. */
function liveSpec(format: Partial<VideoFormat>): ExportSpec {
  const { show } = showStore.getState();
  const home = homeSpec(show, show.scenes[0]);
  const now = new Date();
  // Two in a minute are two files.
  const clock = [now.getHours(), now.getMinutes(), now.getSeconds()].map(two).join('');
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

/**
 * Begins to record what is on air. What is written is noted from the start, so that it is there whatever becomes of this window. Where the engine or the
 * graphics card is lost, the recording goes on in a second file.
 */
export async function startRecording(format: Partial<VideoFormat> = {}): Promise<void> {
  if (recordingStore.getState().recording) return;
  const job = crypto.randomUUID();
  const spec = liveSpec(format);
  recordingStore.setState({
    recording: { job, name: spec.name, since: performance.now(), frames: 0, dropped: 0, isEnding: false },
  });
  const { show } = showStore.getState();
  const letGo = await holdFolder(job);
  let folder: FileSystemDirectoryHandle;
  try {
    folder = await folderOf(job);
    await keepJob({ id: job, spec, show, goal: null, state: 'recording', isLive: true });
  } catch (error) {
    letGo();
    recordingStore.setState({ recording: null });
    say({ tone: 'error', text: `Nothing can be recorded in this browser. ${(error as Error).message}` });
    return;
  }
  const client = engine();
  const set = (change: object): void =>
    recordingStore.setState(({ recording }) => ({ recording: recording && { ...recording, ...change } }));
  const begin = (): void => client.send({ type: 'live-recording', order: { job, spec, folder } });
  /** `goesOn`: it was not meant to end. */
  const end = (goesOn: boolean, plan: ExportPlan | null, message: string): void => {
    const { recording } = recordingStore.getState();
    if (recording?.job !== job) return;
    for (const off of listening) off();
    recordingStore.setState({ recording: null });
    if (recording.frames === 0 && plan === null) void removeJob(job).finally(letGo);
    else void recorded(job, plan, message).finally(letGo);
    if (!goesOn || recording.isEnding || recording.frames === 0) return;
    say({
      tone: 'warning',
      stays: true,
      text: 'The recording was cut off. It goes on in a second file; the first one is in Record.',
    });
    void startRecording(format);
  };
  const listening = [
    client.on('export', (message) => {
      if (message.job !== job) return;
      const { event } = message;
      if (event.what === 'progress') set({ frames: event.frames });
      else if (event.what === 'dropped') set({ dropped: event.frames });
      else if (event.what === 'recorded') {
        const { plan, dropped } = event;
        const left = `${dropped} of ${plan.count} frames were left out, since the stage needed the time.`;
        end(true, plan, dropped > 0 ? left : 'No frame was left out.');
      } else if (event.what === 'failed') {
        say({ tone: 'error', stays: true, text: `The recording ended. ${event.message}` });
        end(false, null, event.message);
      }
    }),
    // Another engine knows nothing of it.
    client.on('ready', () => {
      // It is told of the show first.
      setTimeout(() => {
        if (recordingStore.getState().recording?.frames === 0) begin();
        else end(true, null, cutOff);
      });
    }),
  ];
  // Pressed again before it had begun.
  if (recordingStore.getState().recording?.isEnding) end(false, null, '');
  else begin();
}

export function stopRecording(): void {
  const { recording } = recordingStore.getState();
  if (!recording || recording.isEnding) return;
  recordingStore.setState({ recording: { ...recording, isEnding: true } });
  engine().send({ type: 'live-recording', order: null });
}
