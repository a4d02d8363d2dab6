import { BaseEdge, EdgeLabelRenderer, getBezierPath, type EdgeProps } from '@xyflow/react';
import { Undo2 } from 'lucide-react';
import { memo, useEffect, useRef } from 'react';
import { naturalRangeOf } from '../../core/show/edit';
import { catalogue } from '../../nodes/catalogue';
import { sessionStore } from '../data/session';
import { showStore } from '../data/show-store';
import { onGlance } from '../engine/live';
import { wireColour, type WireEdge } from './flow-model';
import { onMeanColour } from './wire-colours';

/** A wire that goes back: below both cards, so that it can be told from the others at a glance. */
function returnPath(sx: number, sy: number, tx: number, ty: number): string {
  const low = Math.max(sy, ty) + 92;
  return `M ${sx} ${sy} C ${sx + 70} ${sy}, ${sx + 70} ${low}, ${(sx + tx) / 2} ${low} S ${tx - 70} ${ty}, ${tx} ${ty}`;
}

/** A wire shows what it carries: an image the mean colour of its picture, a signal a bead that rides at its value. */
export const WireLine = memo(function WireLine(props: EdgeProps<WireEdge>) {
  const { sourceX, sourceY, targetX, targetY, data, selected } = props;
  const { wire, carries } = data!;
  const [curve, labelX, labelY] = getBezierPath(props);
  const path = wire.back && carries !== 'signal' ? returnPath(sourceX, sourceY, targetX, targetY) : curve;
  const bead = useRef<SVGCircleElement>(null);
  const group = useRef<SVGGElement>(null);
  useEffect(() => {
    if (carries !== 'image') return;
    return onMeanColour(wire.from.node, (colour) => group.current?.style.setProperty('--line', colour));
  }, [carries, wire.from.node]);
  useEffect(() => {
    if (carries !== 'signal') return;
    return onGlance(wire.from.node, (glance) => {
      const line = group.current?.querySelector('path');
      if (!line || !bead.current) return;
      const { sceneId } = sessionStore.getState();
      const source = showStore.getState().show.scenes.find((s) => s.id === sceneId)?.nodes[wire.from.node];
      if (!source) return;
      const [low, high] = wire.fit?.from ?? naturalRangeOf(source, catalogue);
      const lane = Math.max(0, wire.lane ? glance.lanes.indexOf(wire.lane) : 0);
      const share = Math.min(1, Math.max(0, (glance.values[lane] - low) / (high - low || 1)));
      const at = line.getPointAtLength(line.getTotalLength() * (0.08 + 0.84 * share));
      bead.current.setAttribute('cx', String(at.x));
      bead.current.setAttribute('cy', String(at.y));
    });
  }, [carries, wire]);
  const backX = (sourceX + targetX) / 2;
  const backY = Math.max(sourceY, targetY) + 92;
  return (
    <g ref={group} style={{ '--line': wireColour(carries) } as React.CSSProperties} data-wire={wire.id}>
      <BaseEdge
        path={path}
        interactionWidth={18}
        style={{ stroke: 'var(--line)', strokeDasharray: wire.back ? '7 5' : undefined }}
      />
      {carries === 'signal' && (
        <circle
          ref={bead}
          r={4.5}
          cx={sourceX}
          cy={sourceY}
          fill="var(--wire-signal)"
          stroke="var(--color-base-100)"
          strokeWidth={2}
        />
      )}
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
