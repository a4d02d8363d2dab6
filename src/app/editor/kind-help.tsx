import { Plus, Star, Trash2 } from 'lucide-react';
import { useMemo } from 'react';
import { moduleIdOf } from '../../core/module/module-kind';
import type { Kind } from '../../core/kind/kind';
import type { ModulePack } from '../../core/show/module-pack';
import type { Scene } from '../../core/document/types';
import { exampleApart, exampleWithModules } from '../actions/module-examples';
import { libraryStore, packsFor, removeFromLibrary } from '../data/module-library';
import { toggleFavourite, usedKinds } from '../data/used-kinds';
import { EngineCanvas } from '../engine/engine-canvas';

const carried = { image: 'aqua', signal: 'amber', shape: 'rose', prop: 'ivory', field: 'lavender' } as const;

/** What a kind does, in words and in a small scene that runs. */
export default function KindHelp({
  kind,
  onExample,
}: {
  kind: Kind;
  /** Absent: there is no patch to put it into. `packs`: modules that it is made of. */
  onExample?(example: Scene, packs: readonly ModulePack[]): void;
}) {
  const example = useMemo(() => exampleWithModules(kind), [kind]);
  const source = useMemo(() => ({ type: 'example' as const, scene: exampleApart(example) }), [example]);
  const isLiked = usedKinds((s) => s.favourites.includes(kind.id));
  const module = moduleIdOf(kind.id);
  const kept = libraryStore((s) => s.modules.find(({ id }) => id === module));
  const inputs = Object.entries(kind.inputs);
  return (
    <section className="flex min-h-0 flex-col" aria-label={`Help for ${kind.label}`} data-testid="kind-help">
      <EngineCanvas
        source={source}
        className="aspect-video w-full shrink-0"
        label={`Example of ${kind.label}`}
      />
      <div className="flex min-h-0 grow flex-col gap-2 overflow-y-auto p-3">
        <div className="flex items-start gap-1">
          <p className="grow">
            <strong>{kind.label}.</strong> {kind.summary}
          </p>
          <button
            type="button"
            className="tool -mt-1 -mr-1"
            aria-label={`${kind.label} is a favourite`}
            aria-pressed={isLiked}
            title="Favourites come first in Add"
            onClick={() => toggleFavourite(kind.id)}
          >
            <Star
              size={14}
              fill={isLiked ? 'currentColor' : 'none'}
              className={isLiked ? 'text-primary' : ''}
            />
          </button>
        </div>
        {inputs.length > 0 && (
          <dl className="text-2xs">
            {inputs.map(([port, spec]) => (
              <div key={port} className="flex gap-2">
                <dt
                  className="w-24 shrink-0 truncate font-semibold"
                  title={`${spec.carries} (${carried[spec.carries]})`}
                >
                  {spec.label}
                </dt>
                <dd className="quiet">{spec.help}</dd>
              </div>
            ))}
          </dl>
        )}
        <dl className="text-2xs">
          {Object.entries(kind.controls).map(([name, spec]) => (
            <div key={name} className="flex gap-2">
              <dt className="w-24 shrink-0 truncate" title={spec.label}>
                {spec.label}
              </dt>
              <dd className="quiet">{spec.help}</dd>
            </div>
          ))}
        </dl>
      </div>
      {kept && (
        <button
          type="button"
          className="tool mx-3 mb-2 self-start"
          title="Shows that have it keep it"
          onClick={() => void removeFromLibrary(kept.id)}
        >
          <Trash2 size={13} /> Take out of the library
        </button>
      )}
      {onExample && (
        <button
          type="button"
          className="btn btn-sm m-3 mt-0 border edge bg-base-100"
          onClick={() => onExample(example, packsFor(example.nodes))}
        >
          <Plus size={13} /> Put this example into the patch
        </button>
      )}
    </section>
  );
}
