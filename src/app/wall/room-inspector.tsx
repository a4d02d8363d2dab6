import { Download } from 'lucide-react';
import type { Output, Wall } from '../../core/document/types';
import { surfaceOf } from '../../core/wall/room';
import { wallTable } from '../../core/wall/wall-table';
import { hangFromMvr } from '../../core/show/edit-wall';
import { editOutput, editWall } from '../actions/wall-actions';
import { editShow, useShow } from '../data/show-store';
import { chooseOutputs } from '../data/wall-session';
import { say } from '../parts/notices';
import { saveAs } from '../parts/save-as';
import { FileButton } from '../parts/file-button';
import { FileRow } from '../editor/controls/file-row';
import { liveStore } from '../engine/live';
import { Numbers, type Form } from './inspector-parts';
import { Section } from '../parts/rows';

const metres: Form = { step: 0.02, min: -1000, max: 1000, digits: 2 };
const degrees: Form = { step: 0.5, min: -360, max: 360, digits: 1 };
const axes = ['x', 'y', 'z'] as const;
const venueFile = { type: 'file', label: 'Venue', accepts: 'model', default: '', help: '' } as const;

/** Where an output hangs in the room. */
export function RoomSection({ output }: { output: Output }) {
  const canvas = useShow((show) => show.canvas);
  const surface = surfaceOf(output, canvas);
  const { at, turn, width } = surface;
  const edit = (change: (one: Output) => void, gesture: string | null = null): void =>
    editOutput(output.id, change, gesture);
  const place = (one: Output): NonNullable<Output['room']> => {
    one.room ??= { at: [...at], turn: [...turn], width };
    return one.room;
  };
  return (
    <Section title="In the room" reset={output.room ? () => edit((one) => (one.room = null)) : undefined}>
      <Numbers<Output>
        edit={edit}
        label="At, metres"
        names={axes}
        form={metres}
        values={at}
        set={(one, k, v) => (place(one).at[k] = v)}
      />
      <Numbers<Output>
        edit={edit}
        label="Turned, °"
        names={axes}
        form={degrees}
        values={turn}
        set={(one, k, v) => (place(one).turn[k] = v)}
      />
      {output.type === 'led' ? (
        <p className="figures quiet text-2xs">
          {width.toFixed(2)} x {surface.height.toFixed(2)} m, by its pitch
        </p>
      ) : (
        <Numbers<Output>
          edit={edit}
          label="Width, metres"
          names={null}
          form={{ ...metres, min: 0.01 }}
          values={[width]}
          set={(one, _, v) => (place(one).width = v)}
        />
      )}
    </Section>
  );
}

/** What arrives of all strings. */
function Arrivals() {
  const report = liveStore((s) => s.pixels);
  const outputs = useShow((show) => show.wall.outputs);
  const rows = outputs.flatMap((output) => {
    const count = report?.received[output.id];
    return count ? [{ id: output.id, name: output.name, ...count }] : [];
  });
  if (!rows.length) return null;
  return (
    <Section title="Arrives at the built-in receiver">
      <table className="figures w-full text-2xs" data-testid="arrivals">
        <thead className="quiet text-left">
          <tr>
            <th className="font-normal">String</th>
            <th className="text-right font-normal">packets</th>
            <th className="text-right font-normal">a second</th>
            <th className="text-right font-normal">lost</th>
            <th className="text-right font-normal">late</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ id, name, packets, rate, lost, late }) => (
            <tr key={id} data-arrives={name}>
              <td className="max-w-24 truncate">{name}</td>
              <td className="text-right">{packets}</td>
              <td className="text-right">{rate}</td>
              <td className={lost ? 'text-right text-warning' : 'text-right'}>{lost}</td>
              <td className={late ? 'text-right text-warning' : 'text-right'}>{late}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {report && report.dropped > 0 && (
        <p className="mt-1 text-warning">{report.dropped} packets came quicker than they could be shown.</p>
      )}
      {report && !report.isConnected && (
        <p className="mt-1 text-warning" role="alert">
          The server is away, so nothing arrives. It goes on when it is back.
        </p>
      )}
    </Section>
  );
}

/** The room itself: its venue, where somebody sits, and what arrives over the network. */
export function RoomInspector() {
  const show = useShow((now) => now);
  const { venue, seat } = show.wall;
  return (
    <div className="flex flex-col gap-0.5 px-3 pt-2 pb-4" data-testid="room-inspector">
      <p className="quiet pb-2">
        Drag to go round, turn the wheel to come nearer. Click an output to see its numbers; double-click to
        come back here.
      </p>
      <Section title="Venue">
        <FileRow
          label={<span className="w-24 shrink-0">Model</span>}
          spec={venueFile}
          value={venue ?? ''}
          onChange={(id) => editWall((wall) => (wall.venue = id || null))}
        />
        <Numbers<Wall>
          edit={editWall}
          label="Seat, metres"
          names={axes}
          form={metres}
          values={seat}
          set={(wall, k, v) => (wall.seat[k] = v)}
        />
        <p className="quiet text-2xs">
          Metres from the middle of the back wall: x to the right, y up, z towards the audience.
        </p>
      </Section>
      <Arrivals />
      <Section title="Rig">
        <div className="flex items-center gap-1">
          <FileButton
            label="From MVR …"
            title="Hangs the screens and pixel fixtures of a rig (MVR with GDTF) where they hang there"
            accept=".mvr"
            testId="mvr-file"
            read={async (chosen) => {
              const { readMvr } = await import('../../core/wall/mvr');
              const content = readMvr(new Uint8Array(await chosen.arrayBuffer()));
              const count = content.screens.length + content.strings.length;
              if (!count) throw new Error(`it has no screens or pixels. ${content.notes.join(' ')}`);
              chooseOutputs(editShow((show) => hangFromMvr(show, content)) ?? []);
              say({
                tone: content.notes.length ? 'warning' : 'info',
                text: `${count} outputs hang as in ${chosen.name}. ${content.notes.join(' ')}`,
              });
            }}
          />
          <button
            type="button"
            className="tool"
            title="All outputs as a table: parts, sizes, addresses and places in the room"
            onClick={() => saveAs(new Blob([wallTable(show)], { type: 'text/csv' }), 'wall.csv')}
          >
            <Download size={13} /> CSV
          </button>
        </div>
      </Section>
    </div>
  );
}
