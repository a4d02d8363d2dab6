import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { checkSpec, homeSpec, type ExportFormat, type ExportSpec } from '../../core/export/spec';
import type { Show } from '../../core/document/types';
import { useShow } from '../data/show-store';
import { farmState } from '../exports/farm-client';
import { addJob } from '../exports/job-queue';
import { savedName } from '../exports/job-files';
import { TextField } from '../parts/field';
import { say } from '../parts/notices';
import { Row, Section, Toggle } from '../parts/rows';
import { askForGoal, changeDraft, draftFor, draftStore, framesOfDraft } from './export-draft';
import { FormatRows } from './format-rows';
import { Segments } from './segments';
import { SizeRows } from './size-rows';
import { SourceRows } from './source-rows';
import { TimeRows } from './time-rows';

const formatNames: Record<ExportFormat['type'], string> = {
  video: 'Video',
  images: 'Images',
  animation: 'Preview',
  pixels: 'Pixels',
};

/** Formats as one would begin with. */
const homeFormats = (show: Show): Record<ExportFormat['type'], ExportFormat> => ({
  video: homeSpec(show, show.scenes[0]).format,
  images: { type: 'images', image: 'png', alpha: false, linear: false, depth: false },
  animation: { type: 'animation', image: 'webp' },
  pixels: { type: 'pixels', as: 'csv' },
});

/** Says what is wrong with an export, before it is ordered; null: nothing. */
function faultOf(show: Show, spec: ExportSpec): string | null {
  try {
    checkSpec(show, spec);
    return null;
  } catch (error) {
    return (error as Error).message;
  }
}

async function order(show: Show, spec: ExportSpec, asks: boolean, isFarmed: boolean): Promise<void> {
  const count = framesOfDraft(show, spec);
  const isSequence = spec.format.type === 'images' && count !== 1;
  const goal = asks ? await askForGoal(spec, isSequence, savedName({ spec })) : null;
  if (goal === undefined) return;
  await addJob({ spec, show, goal, isFarmed });
}

/** Puts an export together. */
export function ExportForm() {
  const show = useShow((s) => s);
  draftStore((s) => s.draft);
  const asksForFile = draftStore((s) => s.asksForFile);
  const onFarm = draftStore((s) => s.onFarm);
  const [isBusy, setBusy] = useState(false);
  const farm = useQuery({ queryKey: ['farm'], queryFn: farmState, refetchInterval: 5000, retry: false }).data;
  const canFarm = typeof farm?.workers === 'number';
  const spec = draftFor(show);
  const set = (change: Partial<ExportSpec>): void => changeDraft(show, change);
  const fault = faultOf(show, spec);
  const isString = show.wall.outputs.find(({ id }) => id === spec.output)?.type === 'string';
  const begin = (): void => {
    setBusy(true);
    order(show, spec, asksForFile, onFarm && canFarm)
      .catch((error: Error) => say({ tone: 'error', text: error.message }))
      .finally(() => setBusy(false));
  };
  return (
    <form
      className="panel flex w-96 shrink-0 flex-col border-r edge"
      aria-label="Export"
      onSubmit={(event) => {
        event.preventDefault();
        begin();
      }}
    >
      <div className="flex h-10 shrink-0 items-center border-b edge px-3">
        <h2 className="font-semibold">Export</h2>
      </div>
      <div className="min-h-0 grow overflow-y-auto px-3 pb-2">
        <div className="py-2">
          <SourceRows show={show} spec={spec} set={set} />
        </div>
        <Section title="Time">
          <TimeRows show={show} spec={spec} set={set} />
        </Section>
        <Section title="Format">
          <Row label="Kind">
            <Segments
              label="Kind"
              value={spec.format.type}
              options={(Object.keys(formatNames) as ExportFormat['type'][])
                .filter((type) => (type === 'pixels') === isString)
                .map((type) => [type, formatNames[type]])}
              onChange={(type) => set({ format: homeFormats(show)[type] })}
            />
          </Row>
          <FormatRows spec={spec} set={(format) => set({ format })} />
        </Section>
        {!isString && (
          <Section title="Picture">
            <SizeRows show={show} spec={spec} set={set} />
          </Section>
        )}
      </div>
      <div className="shrink-0 border-t edge p-3">
        <Row label="Name">
          <TextField
            label="Name of the export"
            value={spec.name}
            live
            onChange={(name) => set({ name: name.slice(0, 120) })}
          />
        </Row>
        {'showSaveFilePicker' in window && (
          <Row label="">
            <Toggle
              label="Ask where to write it"
              on={asksForFile}
              set={(on) => draftStore.setState({ asksForFile: on })}
            />
          </Row>
        )}
        {canFarm && (
          <Row label="">
            <Toggle
              label={`On the farm: ${farm.workers} ${farm.workers === 1 ? 'worker listens' : 'workers listen'}`}
              on={onFarm}
              set={(on) => draftStore.setState({ onFarm: on })}
            />
          </Row>
        )}
        {farm?.fault && <p className="quiet py-1 text-2xs">The farm cannot be used. {farm.fault}</p>}
        {fault && (
          <p className="py-1 text-2xs text-warning" role="alert">
            {fault}
          </p>
        )}
        <button
          type="submit"
          className="btn btn-primary btn-sm mt-1 w-full"
          disabled={fault !== null || isBusy}
        >
          Export
        </button>
      </div>
    </form>
  );
}
