import { BaseEdge, EdgeLabelRenderer, getBezierPath, type EdgeProps } from '@xyflow/react';
import { Undo2 } from 'lucide-react';
import { memo, useEffect } from 'react';
import type { Carries } from '../../core/kind/kind';
import { sceneAt } from '../../core/module/open-place';
import { naturalRangeOf } from '../../core/run/natural-range';
import { catalogue } from '../../nodes/catalogue';
import { sessionStore } from '../data/session';
import { showStore } from '../data/show-store';
import { wireColour, type WireEdge } from './flow-model';
import { placeWire } from './live-layout';
import { bundledCurve, pathOf, returnCurve, returnDepth } from './wire-curves';

/** Wires that show what they carry: the engine paints a line in the mean colour of an image, and the bead of a signal. */
const isLive = (carries: Carries): boolean => carries === 'image' || carries === 'signal';

/** A wire shows what it carries: an image the mean colour of its picture, a signal a bead that rides at its value. */
export const WireLine = memo(function WireLine(props: EdgeProps<WireEdge>) {
  const { sourceX, sourceY, targetX, targetY, data, selected } = props;
  const { wire, carries, joint, aside } = data!;
  const [bezier, labelX, labelY] = getBezierPath(props);
  const isReturn = wire.back !== undefined && carries !== 'signal';
  const [from, to] = [[sourceX, sourceY] as const, [targetX, targetY] as const];
  const curve = isReturn
    ? returnCurve(from, to)
    : joint
      ? bundledCurve(from, joint, to, carries === 'signal')
      : (bezier.match(/-?[\d.]+(?:e-?\d+)?/g) ?? []).map(Number);
  const path = pathOf(curve);
  const key = curve.join(' ');
  useEffect(() => {
    if (!isLive(carries) || aside) return;
    const { sceneId } = sessionStore.getState();
    const source = sceneAt(showStore.getState().show, sceneId)?.nodes[wire.from.node];
    if (!source) return;
    return placeWire(wire.id, {
      node: wire.from.node,
      curve: key.split(' ').map(Number),
      dashed: wire.back !== undefined,
      lane: wire.lane ?? null,
      range: carries === 'signal' ? (wire.fit?.from ?? naturalRangeOf(source, catalogue)) : null,
    });
  }, [carries, wire, key, aside]);
  const backX = (sourceX + targetX) / 2;
  const backY = Math.max(sourceY, targetY) + returnDepth;
  return (
    <g
      style={{ '--line': wireColour(carries) } as React.CSSProperties}
      data-wire={wire.id}
      data-carries={carries}
      data-aside={aside}
      data-bundled={joint !== undefined}
    >
      <BaseEdge
        path={path}
        interactionWidth={18}
        style={{ stroke: 'var(--line)', strokeDasharray: wire.back ? '7 5' : undefined }}
      />
      {wire.back && (
        <EdgeLabelRenderer>
          <button
            type="button"
            data-return={wire.id}
            title={`Return wire: keeps ${wire.back.keep} of the frame before`}
            className={`figures pointer-events-auto absolute flex items-center gap-1 rounded-full border bg-base-200 px-2 text-2xs ${selected ? 'border-primary text-primary' : 'edge'}`}
            style={{
              transform: `translate(-50%, -50%) translate(${carries === 'signal' ? labelX : backX}px, ${carries === 'signal' ? labelY : backY}px)`,
            }}
            onClick={() => sessionStore.setState({ selection: [], wire: wire.id })}
          >
            <Undo2 size={11} /> {wire.back.keep}
          </button>
        </EdgeLabelRenderer>
      )}
    </g>
  );
});
