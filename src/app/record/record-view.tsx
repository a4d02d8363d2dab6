import { liveQuery } from 'dexie';
import { useEffect, useState } from 'react';
import { database, type StoredJob } from '../data/db';
import { ExportForm } from './export-form';
import { JobRow } from './job-row';

function useJobs(): StoredJob[] | null {
  const [jobs, setJobs] = useState<StoredJob[] | null>(null);
  useEffect(() => {
    const watched = liveQuery(() => database.jobs.orderBy('created').reverse().toArray()).subscribe(setJobs);
    return () => watched.unsubscribe();
  }, []);
  return jobs;
}

/** Record: exports of scenes and performances, and live recordings. */
export function RecordView() {
  const jobs = useJobs();
  return (
    <div className="flex h-full">
      <ExportForm />
      <section className="flex min-w-0 grow flex-col" aria-label="Exports">
        <div className="flex h-10 shrink-0 items-center border-b edge px-4">
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
    </div>
  );
}
