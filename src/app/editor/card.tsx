import { kindOf } from '../../core/kind/kind';
import { Handle, Position, useUpdateNodeInternals, type NodeProps } from '@xyflow/react';
import clsx from 'clsx';
import { TriangleAlert } from 'lucide-react';
import { memo, useEffect, useRef } from 'react';
import type { NodeGlance } from '../../engine/protocol/protocol';
import { catalogue } from '../../nodes/catalogue';
import { useSession } from '../data/session';
import { liveStore, onGlance, usePreview } from '../engine/live';
import { shortNumber } from '../parts/scrub-number';
import { hoverNode } from './alt-node';
import { drawPoints } from './bench/draw-points';
import { leftPorts, lowerPorts, wireColour, type CardNode } from './flow-model';
import { setMeanColour } from './wire-colours';

export const faceWidth = 152;
export const faceHeight = 86;

/** The face of an image or field: its picture, sent by the engine a few times a second. */
function PictureFace({ id }: { id: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  usePreview(id, (sheet, cell) => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    context.putImageData(sheet, -cell.x, -cell.y, cell.x, cell.y, cell.width, cell.height);
    canvas.current!.dataset.drawn = String(Number(canvas.current!.dataset.drawn ?? 0) + 1);
    setMeanColour(id, sheet, cell);
  });
  return (
    <canvas ref={canvas} width={faceWidth} height={faceHeight} className="block h-full w-full bg-black" />
  );
}

const theme = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(name);

/** Draws a signal: one value as the trace of the last seconds, several as bars side by side. */
function drawSignal(context: CanvasRenderingContext2D, glance: NodeGlance, trace: number[]): void {
  const { width, height } = context.canvas;
  context.clearRect(0, 0, width, height);
  const colour = theme('--wire-signal');
  const values = glance.count > 1 ? [...glance.samples] : trace;
  if (values.length === 0) return;
  const low = Math.min(0, ...values);
  let high = Math.max(0, ...values);
  if (high - low < 1e-6) high = low + 1;
  const pad = 10;
  const y = (v: number): number => height - pad - ((v - low) / (high - low)) * (height - 2 * pad);
  context.strokeStyle = context.fillStyle = colour;
  context.globalAlpha = 0.25;
  context.fillRect(0, y(0), width, 1);
  context.globalAlpha = 1;
  if (glance.count > 1) {
    const step = (width - 16) / values.length;
    values.forEach((v, k) =>
      context.fillRect(
        8 + k * step,
        Math.min(y(v), y(0)),
        Math.max(1, step - 1),
        Math.max(1, Math.abs(y(v) - y(0))),
      ),
    );
    return;
  }
  context.lineWidth = 1.5;
  context.beginPath();
  values.forEach((v, k) => context.lineTo(8 + (k / 119) * (width - 16), y(v)));
  context.stroke();
}

function NumbersFace({ id }: { id: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const caption = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    const trace: number[] = [];
    return onGlance(id, (glance) => {
      const context = canvas.current?.getContext('2d');
      if (!context) return;
      if (glance.kind === 'signal') {
        trace.push(glance.values[0] ?? 0);
        if (trace.length > 120) trace.shift();
        drawSignal(context, glance, trace);
        const values = glance.lanes
          .slice(0, 3)
          .map(
            (lane, k) => `${glance.lanes.length > 1 ? `${lane} ` : ''}${shortNumber(glance.values[k], 2)}`,
          );
        caption.current!.textContent = `${values.join('  ')}${glance.count > 1 ? `  ·${glance.count}` : ''}`;
      } else {
        drawPoints(context, glance.samples, theme(glance.kind === 'shape' ? '--wire-shape' : '--wire-prop'));
        caption.current!.textContent =
          glance.kind === 'shape'
            ? `${glance.count} points`
            : glance.count > 1
              ? `${glance.count} copies`
              : glance.about;
      }
    });
  }, [id]);
  return (
    <div className="relative h-full w-full bg-base-100">
      <canvas ref={canvas} width={faceWidth} height={faceHeight} className="block h-full w-full" />
      <span
        ref={caption}
        className="figures absolute right-1.5 bottom-0.5 left-1.5 truncate text-right text-2xs"
        data-testid="numbers"
      />
    </div>
  );
}

function Cost({ id }: { id: string }) {
  const ms = liveStore((s) => s.stats?.nodeMs[id]);
  return ms === undefined ? null : (
    <span
      className="figures quiet shrink-0 text-2xs whitespace-nowrap [[data-far=true]_&]:hidden"
      title="Time of the graphics card for this step"
    >
      {ms < 0.1 ? '<0.1' : ms.toFixed(1)}&thinsp;ms
    </span>
  );
}

/** One node on the patch: what it gives is its face, its name and cost stand below. */
export const Card = memo(function Card({ id, data, selected }: NodeProps<CardNode>) {
  const { node, driven } = data;
  const kind = kindOf(catalogue, node);
  const sceneId = useSession((s) => s.sceneId);
  const fault = liveStore((s) => s.faults[sceneId]?.[id]);
  const update = useUpdateNodeInternals();
  const ports = driven.join(' ');
  // A card is measured when it comes; only ports that come later are told. Each telling goes through all cards.
  const told = useRef(ports);
  useEffect(() => {
    if (told.current === ports) return;
    told.current = ports;
    update(id);
  }, [id, ports, update]);
  if (!kind) {
    return (
      <div
        className={clsx(
          'w-40 rounded-md border-2 border-dashed bg-base-200 p-2',
          selected ? 'border-primary' : 'edge',
        )}
        data-node={node.name}
        data-placeholder
      >
        <p className="font-semibold">{node.name}</p>
        <p className="quiet text-2xs">Unknown node kind “{node.kind}”. Its data is kept.</p>
        <Handle type="source" position={Position.Right} id="out" isConnectable={false} />
      </div>
    );
  }
  const left = leftPorts(kind);
  const lower = lowerPorts(kind, driven);
  const isOut = kind.output === 'image' && kind.isSceneOut;
  const signal = kind.output === 'signal';
  return (
    <div
      data-node={node.name}
      data-kind={kind.id}
      className={clsx(
        'group rounded-md border bg-base-200 shadow-md',
        selected ? 'border-primary ring-1 ring-primary' : fault ? 'border-error' : 'edge',
        !node.on && 'opacity-45',
      )}
      style={{ width: faceWidth + 2 }}
      onPointerEnter={() => hoverNode(id)}
      onPointerLeave={() => hoverNode(null)}
    >
      <div className={clsx('relative overflow-hidden', signal ? 'h-14' : 'h-[86px]', 'rounded-t-[5px]')}>
        {kind.output === 'image' || kind.output === 'field' ? (
          <PictureFace id={id} />
        ) : (
          <NumbersFace id={id} />
        )}
        {!node.on && (
          <span className="absolute top-1 left-1 rounded bg-base-300 px-1 text-2xs font-semibold">off</span>
        )}
      </div>
      <div className="flex h-7 items-center gap-1 px-2">
        <span className="h-1.5 w-1.5 shrink-0 rounded-full" style={{ background: wireColour(kind.output) }} />
        <span
          className="grow truncate font-medium"
          style={{ fontSize: 'calc(0.8rem * var(--label-scale, 1))' }}
          title={`${node.name} (${kind.label})`}
        >
          {node.name}
        </span>
        {fault ? (
          <span title={fault} className="text-error" role="img" aria-label={fault}>
            <TriangleAlert size={13} />
          </span>
        ) : (
          <Cost id={id} />
        )}
      </div>
      {left.map(({ port, label, carries }, k) => (
        <Handle
          key={port}
          type="target"
          id={port}
          position={Position.Left}
          title={label}
          data-port={port}
          style={
            {
              '--port': wireColour(carries),
              top: left.length === 1 ? 43 : 16 + (k * 58) / Math.max(1, left.length - 1),
            } as React.CSSProperties
          }
        />
      ))}
      {lower.map(({ port, label }, k) => (
        <Handle
          key={port}
          type="target"
          id={port}
          position={Position.Bottom}
          title={label}
          data-port={port}
          style={
            {
              '--port': wireColour('signal'),
              left: `${((k + 1) / (lower.length + 1)) * 100}%`,
            } as React.CSSProperties
          }
        />
      ))}
      {!isOut && (
        <Handle
          type="source"
          id="out"
          position={signal ? Position.Top : Position.Right}
          title={`${node.name} gives ${kind.output}`}
          data-port="out"
          style={{ '--port': wireColour(kind.output), ...(signal ? {} : { top: 43 }) } as React.CSSProperties}
        />
      )}
    </div>
  );
});
