import { lazy, Suspense } from 'react';
import { Trash2, Undo2 } from 'lucide-react';
import { kindOf } from '../../core/kind/kind';
import { portOf } from '../../core/patch/wiring';
import { disconnect } from '../../core/show/edit';
import type { Scene, Wire } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { choose } from '../data/session';
import { editScene } from '../data/show-store';
import { WireSettings } from './controls/part-sources';

const ReturnPanel = lazy(() => import('./return-panel'));

/** The settings of the chosen wire. */
export default function WireInspector({ scene, wire }: { scene: Scene; wire: Wire }) {
  const from = scene.nodes[wire.from.node];
  const to = scene.nodes[wire.to.node];
  const kind = kindOf(catalogue, to);
  const port = kind ? portOf(kind, wire.to.port) : null;
  return (
    <div className="flex flex-col gap-2 p-3">
      <div className="flex items-center gap-2">
        <Undo2 size={14} className={wire.back ? 'text-primary' : 'hidden'} />
        <h2 className="grow truncate font-semibold">
          {from?.name} → {to?.name}
        </h2>
        <button
          type="button"
          className="tool"
          aria-label="Remove the wire"
          onClick={() => {
            editScene(scene.id, (draft) => disconnect(draft, wire.id));
            choose([]);
          }}
        >
          <Trash2 size={14} />
        </button>
      </div>
      <p className="quiet">
        {wire.back
          ? 'A return wire: it closes a cycle and carries the frame before.'
          : `Into ${wire.to.port}.`}
      </p>
      {wire.back && (
        <Suspense fallback={null}>
          <ReturnPanel scene={scene} wire={wire} back={wire.back} />
        </Suspense>
      )}
      {port?.type === 'control' && <WireSettings scene={scene} wire={wire} />}
    </div>
  );
}
