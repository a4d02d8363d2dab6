import { lazy, Suspense, useEffect, useState } from 'react';
import { kindOf } from '../../../core/kind/kind';
import type { Scene } from '../../../core/document/types';
import type { BenchData } from '../../../engine/protocol/protocol';
import { catalogue } from '../../../nodes/catalogue';
import { onBench } from '../../engine/live';
import { NumberTable } from './number-table';
import { FieldView, PictureView } from './picture-view';
import { PointsView } from './points-view';

const LanePlot = lazy(() => import('./lane-plot'));

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

/** What flows out of a node: pixels, lanes or points. */
export function NodeOutput({ scene, node }: { scene: Scene; node: string }) {
  const data = useBench(node);
  if (data?.size) return <PictureView key={node} scene={scene} node={node} size={data.size} />;
  if (!data) {
    const output = kindOf(catalogue, scene.nodes[node])?.output;
    if (output === 'field') return <FieldView scene={scene.id} node={node} />;
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
        <Suspense fallback={null}>
          <LanePlot data={data} />
        </Suspense>
        <NumberTable
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
        <NumberTable
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
