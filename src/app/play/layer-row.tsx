import clsx from 'clsx';
import { Layers } from 'lucide-react';
import { useState } from 'react';
import type { Layer } from '../../core/document/types';
import { useShow } from '../data/show-store';
import { perform } from '../engine/perform';
import { liveStore } from '../engine/live';
import { SelectField } from '../parts/field';
import { Bindable } from './bindable';
import { useLever } from './use-grip';

const blends: [Layer['blend'], string][] = [
  ['over', 'Over'],
  ['add', 'Add'],
  ['screen', 'Screen'],
  ['multiply', 'Multiply'],
];

/** A scene that stays over the program, however that changes: a title over the picture. */
export function LayerRow() {
  const scenes = useShow((show) => show.scenes);
  const layer = liveStore((s) => s.layer);
  const [wished, setWished] = useState<Omit<Layer, 'scene'>>({ blend: 'over', opacity: 1 });
  const { blend, opacity } = layer ?? wished;
  const put = (change: Partial<Layer>): void => {
    setWished({ blend: change.blend ?? blend, opacity: change.opacity ?? opacity });
    if (layer) perform({ type: 'layer', layer: { ...layer, ...change } });
  };
  const { lever } = useLever(opacity, (to) => put({ opacity: to }));
  return (
    <div className="flex h-11 items-center gap-1.5" role="group" aria-label="Layer over the program">
      <Layers size={15} className={clsx('shrink-0', layer ? 'text-primary' : 'quiet')} />
      <SelectField
        label="Scene of the layer"
        value={layer?.scene ?? ''}
        options={[['', 'No layer'], ...scenes.map(({ id, name }) => [id, name] as const)]}
        className="h-9! min-w-0 flex-1"
        onChange={(scene) => perform({ type: 'layer', layer: scene ? { scene, blend, opacity } : null })}
      />
      <SelectField
        label="Blend of the layer"
        value={blend}
        options={blends}
        className="h-9! w-20"
        onChange={(v) => put({ blend: v as Layer['blend'] })}
      />
      <Bindable
        target={{ type: 'master', master: 'layer' }}
        label="the opacity of the layer"
        className="w-20"
      >
        <input
          type="range"
          className={clsx('range w-full range-primary', !layer && 'opacity-40')}
          aria-label="Opacity of the layer"
          min={0}
          max={1}
          step={0.01}
          {...lever}
        />
      </Bindable>
    </div>
  );
}
