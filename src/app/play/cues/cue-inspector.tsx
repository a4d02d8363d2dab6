import { ArrowDown, ArrowUp, Check, Trash2 } from 'lucide-react';
import { cueOf, moveInList, removeCue } from '../../../core/show/edit-desk';
import { homeTransition } from '../../../core/show/transition';
import { codeText, secondsIn } from '../../../core/time-code/time-code';
import type { Cue, CueGo } from '../../../core/document/types';
import { playSession } from '../../data/play-session';
import { editShow, endGesture, useShow } from '../../data/show-store';
import { liveStore } from '../../engine/live';
import { SelectField, TextField } from '../../parts/field';
import { say } from '../../parts/notices';
import { ScrubNumber } from '../../parts/scrub-number';
import { TransitionFields } from '../transition-rows';
import { freshGo } from './cue-words';

const goNames: [CueGo['type'], string][] = [
  ['hand', 'By hand'],
  ['after', 'By itself, after'],
  ['sound', 'At a place of the sound'],
  ['note', 'By a MIDI note'],
  ['code', 'At time code'],
];

const Line = ({ label, children }: { label: string; children: React.ReactNode }) => (
  <div className="flex min-h-8 items-center gap-1.5">
    <span className="quiet w-14 shrink-0 text-2xs">{label}</span>
    {children}
  </div>
);

type Edit = (change: (cue: Cue) => void, gesture?: string) => void;

function GoRow({ cue, edit }: { cue: Cue; edit: Edit }) {
  const { go } = cue;
  const figure = (key: string, label: string, value: number, unit: string, step: number, most?: number) => (
    <ScrubNumber
      label={label}
      value={value}
      step={step}
      fine={step / 10}
      min={0}
      max={most}
      unit={unit}
      digits={2}
      className="min-w-0 flex-1"
      onChange={(v) =>
        edit((one) => Object.assign(one.go, { [key]: most === undefined ? v : Math.round(v) }), `go ${key}`)
      }
      onDone={endGesture}
    />
  );
  return (
    <>
      <Line label="Starts">
        <SelectField
          label="What starts the cue"
          value={go.type}
          options={goNames}
          className="h-8! min-w-0 grow"
          onChange={(type) => edit((one) => void (one.go = freshGo(type as CueGo['type'])))}
        />
      </Line>
      {go.type !== 'hand' && (
        <Line label="">
          {go.type === 'after' && (
            <>
              {figure('length', 'Time after the cue before', go.length, '', 0.1)}
              <SelectField
                label="Unit of the time"
                value={go.unit}
                options={[
                  ['seconds', 'seconds'],
                  ['beats', 'beats'],
                ]}
                onChange={(unit) => edit((one) => Object.assign(one.go, { unit }))}
              />
            </>
          )}
          {go.type === 'sound' && figure('at', 'Second of the sound', go.at, ' s', 0.1)}
          {go.type === 'note' && (
            <>
              {figure('note', 'Note', go.note, '', 0.2, 127)}
              {figure('channel', 'Channel of the note', go.channel, ' ch', 0.1, 16)}
            </>
          )}
          {go.type === 'code' && (
            <TextField
              label="Time code"
              value={codeText(go.at)}
              mono
              onChange={(text) => {
                const seconds = secondsIn(text);
                if (seconds === null)
                  say({ tone: 'warning', text: `“${text}” is no time code. Write it as 01:02:03:04.` });
                else edit((one) => Object.assign(one.go, { at: seconds }));
              }}
            />
          )}
        </Line>
      )}
    </>
  );
}

/** The settings of one cue. */
export function CueInspector({ cue }: { cue: Cue }) {
  const scenes = useShow((show) => show.scenes);
  const snapshots = useShow((show) => show.snapshots);
  const cues = useShow((show) => show.cues);
  const desk = useShow((show) => show.desk);
  const edit: Edit = (change, gesture) =>
    void editShow((show) => change(cueOf(show, cue.id)), gesture ? `cue ${cue.id} ${gesture}` : null);
  const controls = desk.flatMap((page) => page.controls.map((control) => ({ page, control })));
  const index = cues.findIndex(({ id }) => id === cue.id);
  const { transition, back } = cue;
  return (
    <div className="flex min-h-0 grow flex-col gap-0.5 overflow-y-auto" data-testid="cue-settings">
      <div className="flex items-center gap-1">
        <TextField
          label="Name of the cue"
          value={cue.name}
          className="h-8"
          onChange={(name) => name.trim() && edit((one) => void (one.name = name.trim().slice(0, 120)))}
        />
        <button
          type="button"
          className="tool h-8"
          aria-label="Done"
          onClick={() => playSession.setState({ cue: null })}
        >
          <Check size={14} />
        </button>
      </div>
      <TextField
        label="Note of the cue"
        value={cue.note}
        lines={2}
        onChange={(note) => edit((one) => void (one.note = note.slice(0, 2000)))}
      />
      <GoRow cue={cue} edit={edit} />
      <Line label="Scene">
        <SelectField
          label="Scene of the cue"
          value={cue.scene ?? ''}
          options={[['', 'Stays'], ...scenes.map(({ id, name }) => [id, name] as const)]}
          className="h-8! min-w-0 grow"
          onChange={(id) => edit((one) => void (one.scene = id || null))}
        />
      </Line>
      <Line label="Transition">
        <SelectField
          label="Transition of the cue"
          value={transition ? 'own' : ''}
          options={[
            ['', 'As the show'],
            ['own', 'Its own'],
          ]}
          className="h-8! min-w-0 grow"
          onChange={(v) => edit((one) => void (one.transition = v ? homeTransition() : null))}
        />
      </Line>
      {transition && (
        <TransitionFields
          transition={transition}
          edit={(change, gesture) => edit((one) => change(one.transition!), gesture ?? undefined)}
        />
      )}
      <Line label="Snapshot">
        <SelectField
          label="Snapshot of the cue"
          value={cue.snapshot ?? ''}
          options={[['', 'None'], ...snapshots.map(({ id, name }) => [id, name] as const)]}
          className="h-8! min-w-0 grow"
          onChange={(id) => edit((one) => void (one.snapshot = id || null))}
        />
        {cue.snapshot && (
          <ScrubNumber
            label="Length of the recall of the cue"
            value={cue.seconds}
            step={0.05}
            fine={0.01}
            min={0}
            max={600}
            unit=" s"
            className="w-14"
            onChange={(v) => edit((one) => void (one.seconds = v), 'seconds')}
            onDone={endGesture}
          />
        )}
      </Line>
      <Line label="Tempo">
        <ScrubNumber
          label="Tempo of the cue"
          value={cue.bpm ?? 0}
          step={0.5}
          fine={0.05}
          digits={1}
          min={0}
          max={400}
          unit={cue.bpm === null ? ' stays' : ' bpm'}
          className="min-w-0 grow"
          onChange={(v) => edit((one) => void (one.bpm = v < 10 ? null : v), 'bpm')}
          onDone={endGesture}
        />
      </Line>
      {cue.moves.map((move, k) => (
        <Line key={`${move.control} ${k}`} label="Moves">
          <span className="min-w-0 grow truncate text-2xs">
            {controls.find(({ control }) => control.id === move.control)?.control.name ?? 'gone'} to{' '}
            {typeof move.value === 'string' ? move.value : move.value.map((v) => v.toFixed(2)).join(' ')}
          </span>
          <ScrubNumber
            label="Length of the move"
            value={move.seconds}
            step={0.05}
            fine={0.01}
            min={0}
            unit=" s"
            className="w-14"
            onChange={(v) => edit((one) => void (one.moves[k].seconds = v), `move ${k}`)}
            onDone={endGesture}
          />
          <button
            type="button"
            className="quiet"
            aria-label="Remove the move"
            onClick={() => edit((one) => void one.moves.splice(k, 1))}
          >
            <Trash2 size={12} />
          </button>
        </Line>
      ))}
      <SelectField
        label="Let the cue move a control"
        value=""
        options={[
          ['', 'Move a control to where it stands …'],
          ...controls.map(({ page, control }) => [control.id, `${page.name} · ${control.name}`] as const),
        ]}
        className="h-8! shrink-0"
        onChange={(id) => {
          const found = controls.find(({ control }) => control.id === id);
          if (!found) return;
          const value = liveStore.getState().desk.values[id] ?? found.control.home;
          edit(
            (one) =>
              void one.moves.push({
                control: id,
                value: typeof value === 'string' ? value : [...value],
                seconds: one.seconds,
              }),
          );
        }}
      />
      <Line label="Then">
        <SelectField
          label="The cue goes back to"
          value={back?.cue ?? ''}
          options={[
            ['', 'The next cue'],
            ...cues.slice(0, index + 1).map(({ id, name }) => [id, `Back to ${name}`] as const),
          ]}
          className="h-8! min-w-0 grow"
          onChange={(id) =>
            edit((one) => void (one.back = id ? { cue: id, times: one.back?.times ?? 1 } : null))
          }
        />
        {back && (
          <ScrubNumber
            label="How often it goes back"
            value={back.times}
            step={0.1}
            fine={0.1}
            digits={0}
            min={0}
            max={1000}
            unit={back.times === 0 ? ' on' : '×'}
            className="w-14"
            onChange={(v) => edit((one) => void (one.back!.times = Math.round(v)), 'times')}
            onDone={endGesture}
          />
        )}
      </Line>
      <div className="mt-1 flex gap-1">
        <button
          type="button"
          className="tool h-8"
          aria-label="Earlier"
          onClick={() => editShow((show) => moveInList(show.cues, cue.id, -1))}
        >
          <ArrowUp size={14} />
        </button>
        <button
          type="button"
          className="tool h-8"
          aria-label="Later"
          onClick={() => editShow((show) => moveInList(show.cues, cue.id, 1))}
        >
          <ArrowDown size={14} />
        </button>
        <span className="grow" />
        <button
          type="button"
          className="tool h-8"
          aria-label="Delete the cue"
          onClick={() => {
            editShow((show) => removeCue(show, cue.id));
            playSession.setState({ cue: null });
          }}
        >
          <Trash2 size={14} /> Delete
        </button>
      </div>
    </div>
  );
}
