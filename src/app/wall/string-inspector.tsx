import { Plus, Trash2 } from 'lucide-react';
import { readTable } from '../../core/table';
import { addressesOf } from '../../core/wall/pixels/datagrams';
import { patchOf, pixelCount, pixelOrders } from '../../core/wall/pixels/pixels';
import type { PixelString } from '../../core/document/types';
import { layOnOutlines, layString } from '../../core/show/edit-wall';
import { partOf } from '../../core/wall/outputs';
import { allowAddresses } from '../actions/pixel-network';
import { editString } from '../actions/wall-actions';
import { liveStore } from '../engine/live';
import { SelectField, TextField } from '../parts/field';
import { say } from '../parts/notices';
import { type Form, Numbers, percent, pixels } from './inspector-parts';
import { Row, Section, Toggle } from '../parts/rows';
import { FileButton } from '../parts/file-button';
import { NameRow } from './output-rows';
import { NodeSearch } from './node-search';
import { RoomSection } from './room-inspector';

export const protocolNames = { none: 'not sent', artnet: 'Art-Net', sacn: 'sACN', ddp: 'DDP' } as const;
const whole = Math.round;
const isAddress = (text: string): boolean =>
  text === '' ||
  (/^(\d{1,3}\.){3}\d{1,3}$/.test(text) && text.split('.').every((part) => Number(part) <= 255));

/** How it goes with sending a string, and what stands in its way. */
function SendState({ output }: { output: PixelString }) {
  const report = liveStore((s) => s.pixels);
  if (output.send.protocol === 'none') return null;
  if (!report)
    return output.send.simulated ? (
      <p className="quiet text-2xs" data-testid="pixel-state">
        Simulated: it is fed while the room is seen.
      </p>
    ) : null;
  const refused = addressesOf(output).filter((address) => report.refused.includes(address));
  if (!report.isConnected)
    return (
      <p className="text-warning" role="alert" data-testid="pixel-state">
        The server is away, so pixels are not sent. They go on when it is back.
      </p>
    );
  if (refused.length)
    return (
      <div className="rounded border border-warning p-2" role="alert" data-testid="pixel-state">
        <p>Nobody has allowed on this machine that pixels are sent to {refused.join(', ')}.</p>
        <button
          type="button"
          className="btn mt-1.5 btn-primary btn-sm"
          onClick={() => void allowAddresses(refused)}
        >
          Allow it
        </button>
      </div>
    );
  const amperes = report.amperes[output.id];
  const arrived = report.received[output.id];
  return (
    <p className="figures quiet text-2xs" data-testid="pixel-state">
      sending · {report.packets} packets{amperes === undefined ? '' : ` · ${amperes.toFixed(2)} A`}
      {arrived && (
        <span className="block" data-testid="arrived">
          arrived {arrived.packets} · {arrived.rate} a second · lost {arrived.lost} · late {arrived.late}
        </span>
      )}
    </p>
  );
}

function LayoutSection({ output }: { output: PixelString }) {
  const edit = (change: (one: PixelString) => void, gesture: string | null = null): void =>
    editString(output.id, change, gesture);
  const readPoints = async (chosen: File): Promise<void> => {
    const { names, columns } = readTable(await chosen.text());
    const column = (name: string, otherwise: number): Float32Array | undefined => {
      const at = names.findIndex((one) => one.trim().toLowerCase() === name);
      return columns[at < 0 ? otherwise : at];
    };
    const [xs, ys] = [column('x', 0), column('y', 1)];
    const points = [...(xs ?? [])].flatMap((x, k): [number, number][] =>
      ys && Number.isFinite(x) && Number.isFinite(ys[k]) ? [[x, ys[k]]] : [],
    );
    if (!points.length) throw new Error('It has no two columns of numbers.');
    const holes = (xs?.length ?? 0) - points.length;
    edit((one) => Object.assign(one, { layout: 'points', points: points.slice(0, 20000) }));
    say({
      tone: holes ? 'warning' : 'info',
      text: `${points.length} pixels were read from ${chosen.name}.${holes ? ` ${holes} rows without two numbers were left out.` : ''}`,
    });
  };
  const readDrawing = async (chosen: File): Promise<void> => {
    const { readOutlines } = await import('../../core/wall/outlines');
    const outlines = readOutlines(await chosen.text());
    if (!outlines.length) throw new Error('It has no lines or outlines.');
    edit((one) => layOnOutlines(one, outlines, partOf(one)));
    say({
      tone: 'info',
      text:
        outlines.length === 1
          ? `The string runs along the line of ${chosen.name}.`
          : `${outlines.length} pixels, one in each outline of ${chosen.name}.`,
    });
  };
  const layOut = (form: 'circle' | 'grid'): void => {
    const part = partOf(output);
    const side = Math.max(part.width, part.height);
    const columns = Math.max(1, Math.round(Math.sqrt(pixelCount(output))));
    edit((one) =>
      layString(
        one,
        form,
        { x: part.x, y: part.y + part.height / 2 - side / 2, width: side, height: side },
        columns,
        Math.ceil(pixelCount(output) / columns),
      ),
    );
  };
  return (
    <Section title="Pixels">
      <Row label="Layout">
        <SelectField
          label="Layout of the pixels"
          className="min-w-0 flex-1"
          value={output.layout}
          options={[
            ['path', 'Along a line'],
            ['points', 'One at each point'],
          ]}
          onChange={(v) => edit((one) => (one.layout = v as typeof one.layout))}
        />
      </Row>
      {output.layout === 'path' && (
        <Numbers<PixelString>
          edit={edit}
          label="Pixels"
          names={null}
          form={{ step: 0.2, min: 1, max: 20000, digits: 0 }}
          values={[output.pixels]}
          set={(one, _, v) => (one.pixels = whole(v))}
        />
      )}
      <Numbers<PixelString>
        edit={edit}
        label="Area of each"
        names={null}
        form={{ ...pixels, step: 0.2, min: 0.1, max: 4096 }}
        values={[output.area]}
        set={(one, _, v) => (one.area = v)}
      />
      <div className="flex h-7 items-center gap-4">
        {output.layout === 'path' && (
          <Toggle label="Closed" on={output.closed} set={(on) => edit((one) => (one.closed = on))} />
        )}
        <Toggle
          label="Fed from the end"
          on={output.reversed}
          set={(on) => edit((one) => (one.reversed = on))}
        />
      </div>
      <div className="flex h-7 items-center gap-1">
        <button
          type="button"
          className="tool"
          title="Adds a point after the last, to be dragged on the canvas"
          onClick={() =>
            edit((one) => {
              const [x, y] = one.points[one.points.length - 1];
              one.points.push([x, y - 60]);
            })
          }
        >
          <Plus size={13} /> Point
        </button>
        <button
          type="button"
          className="tool"
          disabled={output.points.length < 2}
          onClick={() => edit((one) => void one.points.pop())}
        >
          <Trash2 size={13} /> Last point
        </button>
        <button
          type="button"
          className="tool"
          title="Lays the string once round in a circle"
          onClick={() => layOut('circle')}
        >
          Circle
        </button>
        <button
          type="button"
          className="tool"
          title="Lays the pixels out in rows that run to and fro"
          onClick={() => layOut('grid')}
        >
          Grid
        </button>
      </div>
      <div className="flex h-7 items-center gap-1">
        <FileButton
          label="From CSV …"
          title="Reads points from a table with columns x and y, in pixels of the canvas"
          accept=".csv,.tsv,.txt"
          testId="points-file"
          read={readPoints}
        />
        <FileButton
          label="From SVG …"
          title="Follows the line of a drawing, or puts a pixel into each of its outlines"
          accept=".svg"
          testId="lines-file"
          read={readDrawing}
        />
      </div>
    </Section>
  );
}

function SendSection({ output }: { output: PixelString }) {
  const { send } = output;
  const edit = (change: (one: PixelString) => void, gesture: string | null = null): void =>
    editString(output.id, change, gesture);
  const hasUniverses = send.protocol === 'artnet' || send.protocol === 'sacn';
  const patches = hasUniverses ? patchOf(output) : [];
  const first: Form = { step: 0.05, min: send.protocol === 'sacn' ? 1 : 0, max: 63999, digits: 0 };
  return (
    <Section title="Sent">
      <Row label="Protocol">
        <SelectField
          label="Protocol"
          className="min-w-0 flex-1"
          value={send.protocol}
          options={[
            ['none', 'Not sent'],
            ['artnet', 'Art-Net 4'],
            ['sacn', 'sACN (E1.31)'],
            ['ddp', 'DDP'],
          ]}
          onChange={(v) => edit((one) => (one.send.protocol = v as typeof send.protocol))}
        />
      </Row>
      {send.protocol !== 'none' && (
        <>
          <Row label="Goes to">
            <SelectField
              label="Goes to"
              className="min-w-0 flex-1"
              value={send.simulated ? 'simulated' : 'network'}
              options={[
                ['simulated', 'Simulated'],
                ['network', 'The network'],
              ]}
              onChange={(v) => edit((one) => (one.send.simulated = v === 'simulated'))}
            />
          </Row>
          <Row label="Address">
            <TextField
              label="Address"
              mono
              value={send.address}
              title={
                send.protocol === 'sacn'
                  ? 'Empty: multicast'
                  : 'IPv4 address of the node, or of all for broadcast'
              }
              invalid={
                !isAddress(send.address) ||
                (send.address === '' && send.protocol !== 'sacn' && !send.simulated)
              }
              onChange={(text) => {
                const address = text.trim();
                if (!isAddress(address))
                  say({ tone: 'warning', text: `“${address}” is no IPv4 address, like 192.168.1.40.` });
                else edit((one) => (one.send.address = address));
              }}
            />
          </Row>
          {send.protocol === 'artnet' && (
            <NodeSearch
              choose={(node) =>
                edit((one) => {
                  Object.assign(one.send, { address: node.address, simulated: false });
                  if (node.universes.length) one.send.universe = node.universes[0];
                })
              }
            />
          )}
          {hasUniverses && (
            <>
              <Numbers<PixelString>
                edit={edit}
                label="Universe"
                names={null}
                form={first}
                values={[send.universe]}
                set={(one, _, v) => (one.send.universe = whole(v))}
              />
              <Numbers<PixelString>
                edit={edit}
                label="Channel"
                names={null}
                form={{ step: 0.2, min: 1, max: 512, digits: 0 }}
                values={[send.channel]}
                set={(one, _, v) => (one.send.channel = whole(v))}
              />
            </>
          )}
          {send.protocol === 'sacn' && (
            <Numbers<PixelString>
              edit={edit}
              label="Priority"
              names={null}
              form={{ step: 0.5, min: 0, max: 200, digits: 0 }}
              values={[send.priority]}
              set={(one, _, v) => (one.send.priority = whole(v))}
            />
          )}
          <Numbers<PixelString>
            edit={edit}
            label="Rate, at most"
            names={null}
            form={{ step: 0.2, min: 1, max: 60, digits: 0, unit: ' fps' }}
            values={[send.rate]}
            set={(one, _, v) => (one.send.rate = whole(v))}
          />
          {hasUniverses && (
            <div className="flex h-7 items-center gap-2">
              <Toggle
                label="Shown together (sync)"
                on={send.sync}
                set={(on) => edit((one) => (one.send.sync = on))}
              />
            </div>
          )}
          <Row label="At the end">
            <SelectField
              label="At the end"
              className="min-w-0 flex-1"
              value={send.onStop}
              options={[
                ['black', 'Goes black'],
                ['hold', 'Keeps the last pixels'],
              ]}
              onChange={(v) => edit((one) => (one.send.onStop = v as typeof send.onStop))}
            />
          </Row>
          {patches.length > 0 && (
            <p className="figures quiet text-2xs">
              {patches.length > 1
                ? `universes ${patches[0].universe}–${patches[patches.length - 1].universe}`
                : `universe ${patches[0].universe}`}{' '}
              · {patches.reduce((sum, { bytes }) => sum + bytes, 0)} channels
            </p>
          )}
          <SendState output={output} />
        </>
      )}
    </Section>
  );
}

/** Everything about one string of pixels, in numbers. */
export function StringInspector({ output }: { output: PixelString }) {
  const edit = (change: (one: PixelString) => void, gesture: string | null = null): void =>
    editString(output.id, change, gesture);
  const full = (pixelCount(output) * output.order.length * output.milliamperes) / 1000;
  return (
    <div className="flex flex-col gap-0.5 px-3 pt-2 pb-4" data-testid="string-inspector">
      <NameRow output={output} />
      <LayoutSection output={output} />
      <Section title="Node">
        <Row label="Channels">
          <SelectField
            label="Order of the channels"
            className="min-w-0 flex-1"
            value={output.order}
            options={pixelOrders.map((order): [string, string] => [order, order])}
            onChange={(v) => edit((one) => (one.order = v as typeof one.order))}
          />
          <SelectField
            label="Bits of a channel"
            className="min-w-0 flex-1"
            value={String(output.bits)}
            options={[
              ['8', '8 bits'],
              ['16', '16 bits'],
            ]}
            onChange={(v) => edit((one) => (one.bits = Number(v) === 16 ? 16 : 8))}
          />
        </Row>
        <Numbers<PixelString>
          edit={edit}
          label="Gamma"
          names={null}
          form={{ step: 0.01, min: 0.2, max: 5, digits: 2 }}
          values={[output.gamma]}
          set={(one, _, v) => (one.gamma = v)}
        />
        <Numbers<PixelString>
          edit={edit}
          label="Brightness"
          names={null}
          form={percent}
          values={[output.brightness]}
          set={(one, _, v) => (one.brightness = v)}
        />
        <Numbers<PixelString>
          edit={edit}
          label="Per channel"
          names={null}
          form={{ step: 0.1, min: 0, max: 1000, digits: 1, unit: ' mA' }}
          values={[output.milliamperes]}
          set={(one, _, v) => (one.milliamperes = v)}
        />
        <Numbers<PixelString>
          edit={edit}
          label="Limit"
          names={null}
          form={{ step: 0.05, min: 0, max: 10000, digits: 2, unit: ' A' }}
          values={[output.mostAmperes]}
          set={(one, _, v) => (one.mostAmperes = v)}
        />
        <p className="figures quiet text-2xs">
          full white {full.toFixed(1)} A{output.mostAmperes > 0 ? '' : ' · no limit'}
        </p>
      </Section>
      <SendSection output={output} />
      <RoomSection output={output} />
    </div>
  );
}
