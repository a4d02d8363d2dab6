import { MiniMap } from '@xyflow/react';
import { kindOf } from '../../core/kind/kind';
import { catalogue } from '../../nodes/catalogue';
import { wireColour, type CardNode } from './flow-model';

/** The whole patch, small, with what is in sight: drag or scroll on it to go elsewhere. */
export default function OverviewMap() {
  return (
    <MiniMap<CardNode>
      pannable
      zoomable
      ariaLabel="Overview map"
      position="bottom-right"
      style={{ width: 190, height: 118 }}
      bgColor="var(--color-base-200)"
      maskColor="color-mix(in oklab, var(--color-base-100) 70%, transparent)"
      maskStrokeColor="var(--color-primary)"
      maskStrokeWidth={2}
      nodeBorderRadius={12}
      nodeColor={({ data, selected }) => {
        if (selected) return 'var(--color-primary)';
        const kind = kindOf(catalogue, data.node);
        return kind ? wireColour(kind.output) : 'var(--color-base-300)';
      }}
      className="rounded border edge"
    />
  );
}
