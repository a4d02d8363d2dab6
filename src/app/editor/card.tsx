import { kindOf } from '../../core/kind/kind';
import { moduleIdOf } from '../../core/module/module-kind';
import { Handle, Position, useUpdateNodeInternals, type NodeProps } from '@xyflow/react';
import clsx from 'clsx';
import { Boxes, TriangleAlert } from 'lucide-react';
import { memo, useEffect, useRef } from 'react';
import { catalogue } from '../../nodes/catalogue';
import { useSession } from '../data/session';
import { useKinds } from '../data/show-store';
import { liveStore, onGlance } from '../engine/live';
import { costAt } from '../engine/places';
import { hoverNode } from './alt-node';
import { MiddleName } from '../parts/middle-name';
import { faceWidth } from './live-layout';
import { leftPorts, lowerPorts, wireColour, type CardNode } from './flow-model';

/** What a card gives in words, for those who do not see its face: the engine paints that behind the card. */
function Face({ id, name, isPicture }: { id: string; name: string; isPicture: boolean }) {
  const face = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (isPicture) return;
    return onGlance(id, ({ caption }) => face.current?.setAttribute('aria-label', caption));
  }, [id, isPicture]);
  return (
    <div
      ref={face}
      role="img"
      aria-label={isPicture ? `Picture of ${name}` : 'Nothing yet'}
      className="h-full w-full"
      data-testid={isPicture ? 'face' : 'numbers'}
    />
  );
}

function Cost({ id }: { id: string }) {
  const place = useSession((s) => s.sceneId);
  const ms = liveStore((s) => s.stats && costAt(place, id, s.stats.nodeMs));
  return ms === undefined || ms === null ? null : (
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
  const { node, driven, aside } = data;
  useKinds();
  const kind = kindOf(catalogue, node);
  const sceneId = useSession((s) => s.sceneId);
  const fault = liveStore((s) => s.faults[sceneId]?.[id]);
  const update = useUpdateNodeInternals();
  const ports = [...driven, ...Object.keys(kind?.inputs ?? {}), ...Object.keys(kind?.sideOutputs ?? {})].join(
    ' ',
  );
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
  const isOut = (kind.output === 'image' && kind.isSceneOut) || kind.end === 'out';
  const isModule = moduleIdOf(kind.id) !== null;
  const signal = kind.output === 'signal';
  return (
    <div
      data-node={node.name}
      data-kind={kind.id}
      className={clsx(
        'group rounded-md border shadow-md',
        selected ? 'border-primary ring-1 ring-primary' : fault ? 'border-error' : 'edge',
        !node.on && 'opacity-45',
      )}
      data-aside={aside}
      data-chosen={selected}
      style={{ width: faceWidth + 2 }}
      onPointerEnter={() => hoverNode(id)}
      onPointerLeave={() => hoverNode(null)}
    >
      <div className={clsx('relative', signal ? 'h-[56px]' : 'h-[86px]')}>
        <Face id={id} name={node.name} isPicture={kind.output === 'image' || kind.output === 'field'} />
        {!node.on && (
          <span className="absolute top-1 left-1 rounded bg-base-300 px-1 text-2xs font-semibold">off</span>
        )}
      </div>
      <div className="flex h-[28px] items-center gap-[4px] rounded-b-[5px] bg-base-200 px-[8px]">
        {isModule ? (
          <Boxes
            size={12}
            className="shrink-0"
            style={{ color: wireColour(kind.output) }}
            aria-label="module"
          />
        ) : (
          <span
            className="h-1.5 w-1.5 shrink-0 rounded-full"
            style={{ background: wireColour(kind.output) }}
          />
        )}
        <span
          className="flex min-w-0 grow font-medium"
          style={{ fontSize: 'calc(12.8px * var(--label-scale, 1))' }}
          title={`${node.name} (${kind.label})${isModule ? ': a module, double-click to open it' : ''}`}
        >
          <MiddleName name={node.name} />
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
          data-name={label}
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
          data-name={label}
          style={
            {
              '--port': wireColour('signal'),
              left: `${((k + 1) / (lower.length + 1)) * 100}%`,
            } as React.CSSProperties
          }
        />
      ))}
      {Object.entries(kind.sideOutputs ?? {}).map(([output, { label, carries }], k, all) => (
        <Handle
          key={output}
          type="source"
          id={output}
          position={Position.Right}
          title={`${label}: ${carries}`}
          data-port={output}
          style={
            {
              '--port': wireColour(carries),
              top: 62 + (k * 44) / Math.max(1, all.length),
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
          style={
            {
              '--port': wireColour(kind.output),
              ...(signal ? {} : { top: kind.sideOutputs && Object.keys(kind.sideOutputs).length ? 24 : 43 }),
            } as React.CSSProperties
          }
        />
      )}
    </div>
  );
});
