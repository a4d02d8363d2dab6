import { kindOf, type Kind } from '../../core/kind/kind';
import { CurveBench } from './curve-bench';
import { CodeBench, ShaderBench } from './code-bench';
import { ChevronDown, ChevronUp } from 'lucide-react';
import type { ControlSpec } from '../../core/kind/controls';
import { useEffect, useRef, useState } from 'react';
import uPlot from 'uplot';
import { sceneOutOf } from '../../core/patch/plan';
import type { Scene } from '../../core/show/types';
import type { BenchData } from '../../engine/protocol';
import { catalogue } from '../../nodes/catalogue';
import { sessionStore, useSession } from '../data/session';
import { useShow } from '../data/show-store';
import { engine } from '../engine/client';
import { EngineCanvas } from '../engine/engine-canvas';
import { onBench } from '../engine/live';
import { shortNumber } from '../parts/scrub-number';
import { drawPoints } from './draw-points';

/** What flows out of the chosen node, as the engine last said. */
function useBench(node: string): BenchData | null {
  const [data, setData] = useState<BenchData | null>(null);
  useEffect(
    () =>
      onBench((bench) => {
        const now = bench?.node === node ? bench : null;
        // Of a picture only its size comes this way, again and again.
        const sizeKey = (of: BenchData | null): string => String(of?.size);
        setData((before) =>
          before?.node === now?.node && now?.size && sizeKey(before) === sizeKey(now) ? before : now,
        );
      }),
    [node],
  );
  return data;
}

const laneColours = ['#f0a63a', '#5fc7c0', '#e57a92', '#a99be0', '#9dbf7a', '#e8dcc2'];

/** A live plot: over the last seconds for single samples, over the samples otherwise. */
function LanePlot({ data }: { data: BenchData }) {
  const box = useRef<HTMLDivElement>(null);
  const plot = useRef<{ chart: uPlot; key: string } | null>(null);
  const past = useRef<{ node: string; time: number[]; values: number[][] }>({
    node: '',
    time: [],
    values: [],
  });
  useEffect(() => {
    const element = box.current!;
    const many = data.count > 1;
    const key = `${data.node} ${many} ${data.lanes.map((l) => l.name).join(' ')}`;
    if (past.current.node !== key) past.current = { node: key, time: [], values: data.lanes.map(() => []) };
    if (!plot.current || plot.current.key !== key) {
      plot.current?.chart.destroy();
      const grid = { stroke: 'rgb(128 118 105 / 0.18)', width: 1 };
      const axis = { stroke: '#8d8375', grid, ticks: grid, font: '10px JetBrains Mono Variable', size: 40 };
      const chart = new uPlot(
        {
          width: Math.max(100, element.clientWidth),
          height: Math.max(60, element.clientHeight),
          legend: { show: false },
          cursor: { show: true },
          scales: { x: { time: false } },
          axes: [{ ...axis, size: 22 }, axis],
          series: [
            {},
            ...data.lanes.map((lane, k) => ({
              label: lane.name,
              stroke: laneColours[k % laneColours.length],
              width: 1.5,
              points: { show: many && data.count < 65, size: 4 },
            })),
          ],
        },
        [[], ...data.lanes.map(() => [])],
        element,
      );
      plot.current = { chart, key };
    }
    const { chart } = plot.current;
    if (many)
      chart.setData([
        Array.from({ length: data.lanes[0]?.samples.length ?? 0 }, (_, i) => i),
        ...data.lanes.map((l) => l.samples),
      ] as uPlot.AlignedData);
    else {
      const { time, values } = past.current;
      time.push(performance.now() / 1000);
      data.lanes.forEach((lane, k) => values[k].push(lane.samples[0] ?? 0));
      while (time.length > 2 && time[time.length - 1] - time[0] > 8) {
        time.shift();
        for (const list of values) list.shift();
      }
      const now = time[time.length - 1];
      chart.setData([time.map((t) => t - now), ...values] as uPlot.AlignedData);
    }
    const [width, height] = [element.clientWidth, element.clientHeight];
    if (chart.width !== width || chart.height !== height) chart.setSize({ width, height });
  }, [data]);
  useEffect(() => () => plot.current?.chart.destroy(), []);
  return <div ref={box} className="min-w-0 grow overflow-hidden" data-testid="plot" />;
}

const mostRows = 200;

function Table({
  heads,
  rows,
  count,
}: {
  heads: readonly string[];
  rows: number;
  count: (row: number, column: number) => number;
}) {
  return (
    <div className="w-72 shrink-0 overflow-auto border-l edge">
      <table className="figures w-full text-right text-2xs" data-testid="table">
        <thead className="panel sticky top-0">
          <tr>
            <th className="px-2 py-0.5 font-normal">i</th>
            {heads.map((head, k) => (
              <th
                key={head}
                className="px-2 py-0.5 font-semibold"
                style={{ color: laneColours[k % laneColours.length] }}
              >
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {Array.from({ length: Math.min(mostRows, rows) }, (_, row) => (
            <tr key={row} className="border-t edge">
              <td className="quiet px-2">{row}</td>
              {heads.map((head, k) => (
                <td key={head} className="px-2">
                  {shortNumber(count(row, k), 4)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {rows > mostRows && <p className="quiet p-2 text-2xs">and {rows - mostRows} more</p>}
    </div>
  );
}

function PointsView({ data }: { data: BenchData }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [view, setView] = useState({ orbit: 0.6, height: 0.45 });
  const drag = useRef<{ x: number; y: number } | null>(null);
  useEffect(() => {
    const element = canvas.current!;
    const box = element.parentElement!;
    if (element.width !== box.clientWidth || element.height !== box.clientHeight) {
      element.width = box.clientWidth;
      element.height = box.clientHeight;
    }
    const colour = getComputedStyle(document.documentElement).getPropertyValue('--wire-shape');
    drawPoints(element.getContext('2d')!, data.positions!, colour, { lines: data.lines, ...view });
  }, [data, view]);
  return (
    <div className="relative min-w-0 grow overflow-hidden">
      <canvas
        ref={canvas}
        className="absolute inset-0 cursor-move touch-none"
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          drag.current = { x: e.clientX, y: e.clientY };
        }}
        onPointerMove={(e) => {
          const from = drag.current;
          if (!from) return;
          setView((v) => ({
            orbit: v.orbit - (e.clientX - from.x) * 0.01,
            height: Math.min(1.57, Math.max(-1.57, v.height + (e.clientY - from.y) * 0.01)),
          }));
          drag.current = { x: e.clientX, y: e.clientY };
        }}
        onPointerUp={() => (drag.current = null)}
      />
      <span className="quiet absolute bottom-1 left-2 text-2xs">drag to turn</span>
    </div>
  );
}

/** Milliseconds between two readings of the pixel under the pointer. */
const pixelMs = 120;

function PictureView({ scene, node, size }: { scene: Scene; node: string; size: readonly [number, number] }) {
  const [pixel, setPixel] = useState<{
    x: number;
    y: number;
    rgba: readonly number[];
    width: number;
    height: number;
  } | null>(null);
  const [message, setMessage] = useState('');
  const place = useRef<readonly [number, number] | null>(null);
  useEffect(() => {
    let asking = false;
    // The picture may move under a pointer that stands still.
    const timer = setInterval(() => {
      if (asking || !place.current) return;
      const [x, y] = place.current;
      asking = true;
      engine()
        .ask({ what: 'pixel', scene: scene.id, node, x, y })
        .then(({ rgba, width, height }) => {
          setPixel({ x: Math.floor(x * width), y: Math.floor(y * height), rgba, width, height });
          setMessage('');
        })
        .catch((error: Error) => setMessage(error.message))
        .finally(() => (asking = false));
    }, pixelMs);
    return () => clearInterval(timer);
  }, [scene.id, node]);
  const point = (event: React.PointerEvent<HTMLDivElement>): void => {
    const box = event.currentTarget.getBoundingClientRect();
    const x = (event.clientX - box.left) / box.width;
    const y = 1 - (event.clientY - box.top) / box.height;
    place.current = x >= 0 && x < 1 && y >= 0 && y < 1 ? [x, y] : null;
  };
  return (
    <div className="flex min-w-0 grow gap-3 p-2">
      <div
        className="max-h-full max-w-[75%] min-w-0 cursor-crosshair self-start"
        style={{
          aspectRatio: `${size[0]} / ${size[1]}`,
          ...(size[0] > 4 * size[1] ? { width: '75%' } : { height: '100%' }),
        }}
        onPointerMove={point}
        onPointerDown={point}
        onPointerLeave={() => (place.current = null)}
        data-testid="bench-picture"
      >
        <EngineCanvas key={node} role="bench" className="h-full w-full rounded" label="Output of the node" />
      </div>
      <div className="figures w-40 leading-5" data-testid="pixel">
        <p className="quiet">
          {size[0]} x {size[1]} pixels
        </p>
        {pixel ? (
          <>
            <p>
              x {pixel.x} &nbsp; y {pixel.y}
            </p>
            {['red', 'green', 'blue', 'alpha'].map((name, k) => (
              <p key={name} className="flex justify-between">
                <span className="quiet">{name}</span>
                <span data-channel={name}>{pixel.rgba[k].toFixed(4)}</span>
              </p>
            ))}
          </>
        ) : (
          <p className="quiet font-sans">{message || 'Move over the picture to read its pixels.'}</p>
        )}
      </div>
    </div>
  );
}

/** A cut through a field, as its card shows it, larger. */
function FieldView({ node }: { node: string }) {
  const canvas = useShow((show) => show.canvas);
  return (
    <div className="flex min-w-0 grow gap-3 p-2">
      <div
        className="h-full max-w-[75%] min-w-0 self-start"
        style={{ aspectRatio: `${canvas.width} / ${canvas.height}` }}
        data-testid="bench-field"
      >
        <EngineCanvas
          key={node}
          role="bench"
          className="h-full w-full rounded"
          label="Cut through the field"
        />
      </div>
      <p className="quiet w-44">
        A slice facing the viewer: inside in its colours, outside rings a tenth of a unit apart. Wire it into
        a Field Shot to see it in space.
      </p>
    </div>
  );
}

function Output({ scene, node }: { scene: Scene; node: string }) {
  const data = useBench(node);
  if (data?.size) return <PictureView key={node} scene={scene} node={node} size={data.size} />;
  if (!data) {
    const output = kindOf(catalogue, scene.nodes[node])?.output;
    if (output === 'field') return <FieldView node={node} />;
    return (
      <p className="quiet p-3">
        {output === 'prop'
          ? 'There are no points to show of this. Wire it into a Shot to see what it does.'
          : 'Nothing flows here yet. Wire something in, or look at the fault on the node.'}
      </p>
    );
  }
  if (data.lanes.length) {
    return (
      <>
        <LanePlot data={data} />
        <Table
          heads={data.lanes.map((l) => l.name)}
          rows={data.lanes[0].samples.length}
          count={(row, k) => data.lanes[k].samples[row]}
        />
      </>
    );
  }
  if (data.positions?.length) {
    return (
      <>
        <PointsView data={data} />
        <Table
          heads={['x', 'y', 'z']}
          rows={data.positions.length / 3}
          count={(row, k) => data.positions![3 * row + k]}
        />
      </>
    );
  }
  return (
    <p className="quiet p-3">
      {data.count > 1 ? `${data.count} copies, placed by the picture wired into Pixels.` : data.about}
    </p>
  );
}

/** The node whose output the bench shows: the chosen one, or the scene's picture. */
export const benchNodeOf = (scene: Scene, selection: readonly string[]): string | null =>
  scene.nodes[selection[0]] ? selection[0] : sceneOutOf(scene, catalogue);

const tabWords = { output: 'Output', curves: 'Curves', code: 'Code', shader: 'Shader' } as const;

/** What the bench can show of a node. */
function tabsOf(kind: Kind | undefined): (keyof typeof tabWords)[] {
  const has = (wanted: ControlSpec['type']): boolean =>
    Object.values(kind?.controls ?? {}).some(({ type }) => type === wanted);
  const tabs: (keyof typeof tabWords)[] = ['output'];
  if (has('curves')) tabs.push('curves');
  if (has('code')) tabs.push('code');
  if (kind?.output === 'image') tabs.push('shader');
  return tabs;
}

/** What flows out of the chosen node: pixels, lanes or points. */
export function Bench({ scene }: { scene: Scene }) {
  const { selection, benchOpen, benchTab } = useSession();
  const node = scene.nodes[benchNodeOf(scene, selection) ?? ''];
  const kind = node && kindOf(catalogue, node);
  const tabs = tabsOf(kind);
  const tab = tabs.includes(benchTab) ? benchTab : 'output';
  return (
    <section aria-label="Bench" className="panel flex h-full flex-col" data-testid="bench">
      <div className="flex h-8 shrink-0 items-center gap-2 px-3">
        <h2 className="font-semibold">Bench</h2>
        <span className="quiet truncate">
          {node
            ? `${node.name} gives ${kind?.output ?? 'nothing known'}`
            : 'choose a node to see what flows out of it'}
        </span>
        <span className="grow" />
        {benchOpen && tabs.length > 1 && (
          <div role="tablist" className="flex gap-1">
            {tabs.map((name) => (
              <button
                key={name}
                type="button"
                role="tab"
                aria-selected={tab === name}
                className={tab === name ? 'tool text-primary' : 'tool'}
                onClick={() => sessionStore.setState({ benchTab: name })}
              >
                {tabWords[name]}
              </button>
            ))}
          </div>
        )}
        <button
          type="button"
          className="tool"
          aria-label={benchOpen ? 'Fold the bench' : 'Open the bench'}
          onClick={() => sessionStore.setState({ benchOpen: !benchOpen })}
        >
          {benchOpen ? <ChevronDown size={14} /> : <ChevronUp size={14} />}
        </button>
      </div>
      {benchOpen && (
        <div className="flex min-h-0 grow">
          {node && tab === 'code' ? (
            <CodeBench key={node.id} scene={scene} node={node} />
          ) : node && kind && tab === 'curves' ? (
            <CurveBench key={node.id} scene={scene} node={node} kind={kind} />
          ) : node && tab === 'shader' ? (
            <ShaderBench scene={scene} node={node.id} />
          ) : node ? (
            <Output scene={scene} node={node.id} />
          ) : (
            <div className="quiet grid grow place-items-center pb-8">
              Pictures with their pixels, signals as plot and table, points in space.
            </div>
          )}
        </div>
      )}
    </section>
  );
}
