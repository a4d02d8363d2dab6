import clsx from 'clsx';
import { liveQuery } from 'dexie';
import { Circle, Square } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { VideoContainer } from '../../core/export/spec';
import { commandOf, titleOf } from '../commands/registry';
import { database, type StoredJob } from '../data/db';
import { recordingStore } from '../data/recording-store';
import { SelectField } from '../parts/field';
import { Toggle } from '../parts/rows';
import { ExportForm } from './export-form';
import { duration, JobRow } from './job-row';
import { startRecording, stopRecording } from '../exports/live-recording';

function useJobs(): StoredJob[] | null {
  const [jobs, setJobs] = useState<StoredJob[] | null>(null);
  useEffect(() => {
    const watched = liveQuery(() => database.jobs.orderBy('created').reverse().toArray()).subscribe(setJobs);
    return () => watched.unsubscribe();
  }, []);
  return jobs;
}

/** The live recording: what it is written as, and how it goes. */
function LiveRow() {
  const recording = recordingStore((s) => s.recording);
  const [container, setContainer] = useState<VideoContainer>('webm');
  const [hasSound, setSound] = useState(true);
  const [, tick] = useState(0);
  useEffect(() => {
    if (!recording) return;
    const timer = setInterval(() => tick((n) => n + 1), 500);
    return () => clearInterval(timer);
  }, [recording]);
  const sound = !hasSound ? 'none' : container === 'webm' ? 'opus' : 'pcm';
  return (
    <div
      className="flex min-h-12 shrink-0 flex-wrap items-center gap-3 border-b edge px-4 py-1"
      role="group"
      aria-label="Live recording"
    >
      <button
        type="button"
        className={clsx('btn btn-sm', recording ? 'btn-error' : 'btn-outline')}
        aria-pressed={recording !== null}
        disabled={recording?.isEnding}
        title={titleOf(commandOf('record.live'))}
        onClick={() =>
          recording
            ? stopRecording()
            : void startRecording({ container, codec: container === 'webm' ? 'vp9' : 'avc', sound })
        }
      >
        {recording ? <Square size={13} /> : <Circle size={13} />}
        {recording ? 'End the recording' : 'Record the program'}
      </button>
      {recording ? (
        <output className="figures text-2xs" aria-label="Recording">
          {duration((performance.now() - recording.since) / 1000)} · {recording.frames} frames
          <span className={clsx(recording.dropped > 0 ? 'text-warning' : 'quiet')}>
            {' '}
            · {recording.dropped} left out
          </span>
          {recording.isEnding && ' · writing the last of it'}
        </output>
      ) : (
        <>
          <SelectField
            label="Recording container"
            value={container}
            options={[
              ['webm', 'VP9 in WebM'],
              ['mp4', 'H.264 in MP4'],
            ]}
            onChange={(id) => setContainer(id as VideoContainer)}
          />
          <Toggle label="Sound" on={hasSound} set={setSound} />
          <span className="quiet min-w-0 truncate text-2xs">
            At the size of the canvas. Short of time, frames are left out here, never on stage.
          </span>
        </>
      )}
    </div>
  );
}

/** Record: exports of scenes and performances, and live recordings. */
export function RecordView() {
  const jobs = useJobs();
  return (
    <main className="flex h-full">
      <ExportForm />
      <section className="flex min-w-0 grow flex-col" aria-label="Exports">
        <LiveRow />
        <div className="flex min-h-10 shrink-0 items-center gap-3 border-b edge px-4">
          <h2 className="grow font-semibold">Exports</h2>
          <span className="quiet text-2xs">
            They go on while other views are used, and after a reload. The stage comes first.
          </span>
        </div>
        {jobs?.length === 0 ? (
          <div className="quiet grid grow place-items-center p-8 text-center">
            <p className="max-w-96">
              Nothing is exported yet. Choose a scene, the running order or recorded moves on the left, a
              format, and press Export.
            </p>
          </div>
        ) : (
          <ul className="flex min-h-0 grow flex-col gap-2 overflow-y-auto p-4">
            {jobs?.map((job) => (
              <JobRow key={job.id} job={job} />
            ))}
          </ul>
        )}
      </section>
    </main>
  );
}
