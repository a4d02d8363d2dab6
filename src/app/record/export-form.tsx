import clsx from 'clsx';
import { useState } from 'react';
import {
  checkSpec,
  homeSpec,
  type ExportFormat,
  type ExportRange,
  type ExportSpec,
} from '../../core/export/spec';
import { kindOf } from '../../core/kind/kind';
import type { Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { useShow } from '../data/show-store';
import { SelectField, TextField } from '../parts/field';
import { say } from '../parts/notices';
import { Row, Section, Toggle } from '../parts/rows';
import { ScrubNumber } from '../parts/scrub-number';
import { askForGoal, changeDraft, draftFor, draftStore, framesOfDraft, withOutput } from './export-draft';
import { FormatRows } from './format-rows';
import { savedName } from '../exports/job-files';
import { addJob } from '../exports/job-queue';

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

/** A choice between few things, all in sight. */
function Segments<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: readonly (readonly [T, string, boolean?])[];
  onChange(value: T): void;
}) {
  return (
    <div className="flex flex-1 gap-0.5 rounded border edge p-0.5" role="group" aria-label={label}>
      {options.map(([id, text, isOff]) => (
        <button
          key={id}
          type="button"
          aria-pressed={id === value}
          disabled={isOff}
          className={clsx(
            'h-6 flex-1 rounded-sm px-1 disabled:opacity-40',
            id === value ? 'bg-primary text-primary-content' : 'hover:bg-base-300',
          )}
          onClick={() => onChange(id)}
        >
          {text}
        </button>
      ))}
    </div>
  );
}

function SourceRows({
  show,
  spec,
  set,
}: {
  show: Show;
  spec: ExportSpec;
  set(change: Partial<ExportSpec>): void;
}) {
  const { source } = spec;
  const scene = source.type === 'scene' ? show.scenes.find(({ id }) => id === source.scene) : undefined;
  const nodes = Object.values(scene?.nodes ?? {}).filter((node) => {
    const output = kindOf(catalogue, node)?.output;
    return output === 'image' || output === 'field';
  });
  return (
    <>
      <Row label="What">
        <Segments
          label="What"
          value={source.type}
          options={[
            ['scene', 'Scene'],
            ['cues', 'Cues', show.cues.length === 0],
            ['moves', 'Moves', show.moves.length === 0],
          ]}
          onChange={(type) => {
            if (type === 'scene') {
              const home = homeSpec(show, show.scenes[0]);
              set({ source: home.source, range: home.range, name: home.name });
            } else
              set({
                source: type === 'cues' ? { type, handSeconds: 10 } : { type },
                range: { type: 'whole' },
                name: show.name,
              });
          }}
        />
      </Row>
      {source.type === 'scene' && (
        <>
          <Row label="Scene">
            <SelectField
              label="Scene"
              className="min-w-0 flex-1"
              value={source.scene}
              options={show.scenes.map(({ id, name }) => [id, name])}
              onChange={(id) =>
                set({
                  source: { type: 'scene', scene: id, node: null },
                  name: show.scenes.find((one) => one.id === id)!.name,
                })
              }
            />
          </Row>
          <Row label="Picture">
            <SelectField
              label="Picture"
              className="min-w-0 flex-1"
              value={source.node ?? ''}
              options={[
                ['', 'The whole scene'],
                ...nodes.map(({ id, name }): [string, string] => [id, name]),
              ]}
              onChange={(id) => set({ source: { ...source, node: id || null } })}
            />
          </Row>
        </>
      )}
      {source.type === 'cues' && (
        <Row label="By hand after">
          <ScrubNumber
            label="Seconds of cues by hand"
            value={source.handSeconds}
            step={0.5}
            fine={0.1}
            min={0.1}
            max={3600}
            digits={1}
            unit=" s"
            className="flex-1"
            onChange={(handSeconds) => set({ source: { type: 'cues', handSeconds } })}
          />
        </Row>
      )}
      <Row label="Output">
        <SelectField
          label="Output"
          className="min-w-0 flex-1"
          value={spec.output ?? ''}
          options={[
            ['', 'The canvas'],
            ...show.wall.outputs.map(({ id, name }): [string, string] => [id, name]),
          ]}
          onChange={(id) => set(withOutput(show, spec, id || null))}
        />
      </Row>
    </>
  );
}

function RangeRows({
  show,
  spec,
  set,
}: {
  show: Show;
  spec: ExportSpec;
  set(change: Partial<ExportSpec>): void;
}) {
  const { range, source, fps } = spec;
  const whole: ExportRange = source.type === 'scene' ? { type: 'loop', closed: false } : { type: 'whole' };
  const count = framesOfDraft(show, spec);
  return (
    <>
      <Row label="Frames">
        <Segments
          label="Range"
          value={range.type === 'frames' ? 'frames' : 'whole'}
          options={[
            ['whole', source.type === 'scene' ? 'One loop' : 'All of it'],
            ['frames', 'From – to'],
          ]}
          onChange={(id) =>
            set({ range: id === 'whole' ? whole : { type: 'frames', first: 0, last: (count ?? 60) - 1 } })
          }
        />
      </Row>
      {range.type === 'frames' && (
        <Row label="">
          {(['first', 'last'] as const).map((end) => (
            <ScrubNumber
              key={end}
              label={end === 'first' ? 'First frame' : 'Last frame'}
              value={range[end]}
              step={1}
              fine={1}
              min={0}
              max={1e6}
              digits={0}
              className="flex-1"
              onChange={(value) => {
                const frame = Math.round(value);
                set({
                  range:
                    end === 'first'
                      ? { ...range, first: frame, last: Math.max(frame, range.last) }
                      : { ...range, first: Math.min(frame, range.first), last: frame },
                });
              }}
            />
          ))}
        </Row>
      )}
      {range.type === 'loop' && (
        <Row label="">
          <Toggle
            label="First frame again at the end"
            on={range.closed}
            set={(closed) => set({ range: { type: 'loop', closed } })}
          />
        </Row>
      )}
      <Row label="Rate">
        <ScrubNumber
          label="Frames a second"
          value={fps}
          step={1}
          fine={0.001}
          min={1}
          max={240}
          digits={3}
          unit=" fps"
          className="w-24"
          onChange={(value) => set({ fps: value })}
        />
        <output className="figures quiet flex-1 text-right text-2xs whitespace-nowrap" aria-label="Length">
          {count === null ? 'as long as it plays' : `${count} frames · ${(count / fps).toFixed(2)} s`}
        </output>
      </Row>
    </>
  );
}

const sizes: readonly (readonly [string, number])[] = [
  ['Half', 0.5],
  ['Full', 1],
  ['Double', 2],
];

function SizeRows({
  show,
  spec,
  set,
}: {
  show: Show;
  spec: ExportSpec;
  set(change: Partial<ExportSpec>): void;
}) {
  const [own] = [withOutput(show, spec, spec.output)];
  return (
    <>
      <Row label="Size">
        {(['width', 'height'] as const).map((side) => (
          <ScrubNumber
            key={side}
            label={side === 'width' ? 'Width' : 'Height'}
            value={spec[side]}
            step={2}
            fine={1}
            min={1}
            max={16384}
            digits={0}
            unit=" px"
            className="flex-1"
            onChange={(value) => set({ [side]: Math.round(value) })}
          />
        ))}
      </Row>
      <Row label="">
        {sizes.map(([name, times]) => (
          <button
            key={name}
            type="button"
            className="tool flex-1"
            onClick={() =>
              set({
                width: Math.round((own.width! * times) / 2) * 2,
                height: Math.round((own.height! * times) / 2) * 2,
              })
            }
          >
            {name}
          </button>
        ))}
      </Row>
      <Row label="Supersampling">
        <SelectField
          label="Supersampling"
          className="flex-1"
          value={String(spec.supersample)}
          options={[
            ['1', 'None'],
            ['2', '2 x 2'],
            ['3', '3 x 3'],
            ['4', '4 x 4'],
          ]}
          onChange={(id) => set({ supersample: Number(id) as ExportSpec['supersample'] })}
        />
      </Row>
      <Row label="Motion blur">
        <ScrubNumber
          label="Subframes"
          value={spec.subframes}
          step={1}
          fine={1}
          min={1}
          max={64}
          digits={0}
          unit={spec.subframes === 1 ? ' (none)' : ' subframes'}
          className="flex-1"
          onChange={(value) => set({ subframes: Math.round(value) })}
        />
        {spec.subframes > 1 && (
          <ScrubNumber
            label="Shutter"
            value={spec.shutter}
            step={5}
            fine={1}
            min={1}
            max={360}
            digits={0}
            unit="° shutter"
            className="flex-1"
            onChange={(shutter) => set({ shutter })}
          />
        )}
      </Row>
    </>
  );
}

/** Says what is wrong with an export, before it is ordered; null: nothing. */
function faultOf(show: Show, spec: ExportSpec): string | null {
  try {
    checkSpec(show, spec);
    return null;
  } catch (error) {
    return (error as Error).message;
  }
}

async function order(show: Show, spec: ExportSpec, asks: boolean): Promise<void> {
  const count = framesOfDraft(show, spec);
  const isSequence = spec.format.type === 'images' && count !== 1;
  const goal = asks ? await askForGoal(spec, isSequence, savedName({ spec })) : null;
  if (goal === undefined) return;
  await addJob({ spec, show, goal });
}

/** Puts an export together. */
export function ExportForm() {
  const show = useShow((s) => s);
  draftStore((s) => s.draft);
  const asksForFile = draftStore((s) => s.asksForFile);
  const [isBusy, setBusy] = useState(false);
  const spec = draftFor(show);
  const set = (change: Partial<ExportSpec>): void => changeDraft(show, change);
  const fault = faultOf(show, spec);
  const isString = show.wall.outputs.find(({ id }) => id === spec.output)?.type === 'string';
  const begin = (): void => {
    setBusy(true);
    order(show, spec, asksForFile)
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
          <RangeRows show={show} spec={spec} set={set} />
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
