import { ArrowLeft, Camera, Dices, Lock, LockOpen, Merge, X } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import clsx from 'clsx';
import { withValuesAt } from '../../../core/module/with-values';
import {
  cross,
  setValues,
  valuesOf,
  variablesOf,
  vary,
  type Variable,
  type VariedValues,
} from '../../../core/show/variations';
import { takeSceneApart } from '../../../core/module/take-apart';
import type { Scene } from '../../../core/document/types';
import { catalogue } from '../../../nodes/catalogue';
import { keepAsSnapshot } from '../../actions/keep-variation';
import { variationSession } from '../../data/variation-session';
import { editScene, useKinds, useShow } from '../../data/show-store';
import { EngineCanvas } from '../../engine/engine-canvas';

/** Pictures in the grid. */
const count = 9;

const { setState } = variationSession;
const close = (): void => setState({ isOpen: false, parents: null });

/** One small picture: the scene with other values. */
function Picture({ scene, label }: { scene: Scene; label: string }) {
  const source = useMemo(() => ({ type: 'example' as const, scene, inTurn: true as const }), [scene]);
  return <EngineCanvas source={source} className="h-full w-full" label={label} />;
}

/** What varies, by node; a closed lock keeps a control, or all of a node, as it is. */
function Locks({ scene, variables }: { scene: Scene; variables: readonly Variable[] }) {
  const locked = variationSession((s) => s.locked);
  const nodes = [...new Set(variables.map(({ node }) => node))];
  const lock = (keys: readonly string[], isLocked: boolean): void =>
    setState((s) => {
      const next = new Set(s.locked);
      for (const key of keys)
        if (isLocked) next.add(key);
        else next.delete(key);
      return { locked: next };
    });
  return (
    <div className="min-h-0 grow overflow-y-auto" aria-label="What varies" role="group">
      {nodes.map((node) => {
        const own = variables.filter((one) => one.node === node);
        const isKept = own.every(({ key }) => locked.has(key));
        const Icon = isKept ? Lock : LockOpen;
        return (
          <div key={node} className="relative border-b edge">
            <button
              type="button"
              aria-pressed={isKept}
              aria-label={`${scene.nodes[node].name} stays as it is`}
              className={clsx(
                'tool absolute top-0.5 left-2 z-10 min-w-6 px-1',
                isKept ? 'text-primary' : 'quiet',
              )}
              onClick={() =>
                lock(
                  own.map(({ key }) => key),
                  !isKept,
                )
              }
            >
              <Icon size={12} />
            </button>
            <details>
              <summary className="flex h-7 cursor-pointer items-center pr-2 pl-9">
                <span className="truncate">{scene.nodes[node].name}</span>
              </summary>
              {own.map(({ key, spec }) => (
                <label key={key} className="flex h-6 items-center gap-2 pl-9">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-xs"
                    checked={!locked.has(key)}
                    onChange={(event) => lock([key], !event.target.checked)}
                  />
                  <span className="quiet truncate text-2xs">{spec.label}</span>
                </label>
              ))}
            </details>
          </div>
        );
      })}
    </div>
  );
}

/** Nine variations of the open patch, in place of it: to be taken by a click. */
export default function Variations({ scene }: { scene: Scene }) {
  const { strength, seed, locked, parents, tried } = variationSession();
  const show = useShow((s) => s);
  useKinds();
  const [marked, setMarked] = useState<number | null>(null);
  const variables = useMemo(() => variablesOf(scene, catalogue), [scene]);
  const free = useMemo(() => variables.filter(({ key }) => !locked.has(key)), [variables, locked]);
  const nine = useMemo((): VariedValues[] => {
    const base = valuesOf(scene, free);
    return Array.from({ length: count }, (_, k) => {
      const own = seed * count + k;
      return parents ? cross(parents[0], parents[1], own) : vary(base, free, strength, own);
    });
  }, [scene, free, strength, seed, parents]);
  const pictures = useMemo(
    () =>
      nine.map((values) => {
        const whole = withValuesAt(show, scene.id, values);
        return takeSceneApart(whole.scene, whole.modules, catalogue);
      }),
    [nine, scene, show],
  );
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key === 'Escape') close();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const before = tried.filter(({ place }) => place === scene.id);
  const take = (values: VariedValues): void => {
    setState((s) => ({
      tried: [...s.tried, { place: scene.id, values: valuesOf(scene, variables) }].slice(-60),
      seed: s.seed + 1,
      parents: null,
    }));
    setMarked(null);
    editScene(scene.id, (draft) => setValues(draft, values));
  };
  const goBack = (to: number): void => {
    const { values } = before[to];
    const gone = new Set(before.slice(to));
    setState((s) => ({ tried: s.tried.filter((one) => !gone.has(one)), parents: null }));
    editScene(scene.id, (draft) => setValues(draft, values));
  };
  const press = (k: number, isMark: boolean): void => {
    if (!isMark) take(nine[k]);
    else if (marked === null || marked === k) setMarked(marked === k ? null : k);
    else {
      setState((s) => ({ parents: [nine[marked], nine[k]], seed: s.seed + 1 }));
      setMarked(null);
    }
  };
  return (
    <section aria-label="Variations" className="flex h-full flex-col" data-testid="variations">
      <div className="flex h-10 shrink-0 items-center gap-2 border-b edge px-2">
        <h2 className="font-semibold">Variations</h2>
        <label className="flex items-center gap-2">
          <span className="quiet">Strength</span>
          <input
            type="range"
            className="range range-xs w-28"
            aria-label="Strength"
            min={0.02}
            max={1}
            step={0.01}
            value={strength}
            onChange={(event) => setState({ strength: Number(event.target.value), parents: null })}
          />
        </label>
        <button
          type="button"
          className="tool"
          title="Nine others"
          onClick={() => setState((s) => ({ seed: s.seed + 1 }))}
        >
          <Dices size={14} /> {parents ? 'Nine more children' : 'Nine others'}
        </button>
        <button
          type="button"
          className="tool"
          disabled={before.length === 0}
          title="Back to what it was before the last that was taken"
          onClick={() => goBack(before.length - 1)}
        >
          <ArrowLeft size={14} /> Back
        </button>
        <button
          type="button"
          className="tool"
          title="Keeps how the scene stands as a snapshot: what varies comes onto the desk"
          onClick={() => keepAsSnapshot(scene.id, free)}
        >
          <Camera size={14} /> Keep as snapshot
        </button>
        <span className="grow" />
        <button type="button" className="tool" aria-label="Close the variations" onClick={close}>
          <X size={15} />
        </button>
      </div>
      <div className="flex min-h-0 grow">
        <div className="grid min-w-0 grow grid-cols-3 grid-rows-3 gap-1.5 p-1.5">
          {pictures.map((picture, k) => (
            <div
              key={k}
              className={clsx(
                'group relative min-h-0 min-w-0 overflow-hidden rounded border bg-black',
                marked === k ? 'border-primary ring-1 ring-primary' : 'edge',
              )}
            >
              <button
                type="button"
                className="absolute inset-0 cursor-pointer focus-visible:ring-2 focus-visible:ring-primary focus-visible:ring-inset"
                aria-label={`Take variation ${k + 1}`}
                title="Takes it. Shift-click marks it; a second one is crossed with it"
                onClick={(event) => press(k, event.shiftKey)}
              >
                <Picture scene={picture} label={`Variation ${k + 1}`} />
              </button>
              <button
                type="button"
                className={clsx(
                  'absolute top-1 right-1 rounded bg-base-100/80 p-1',
                  marked === k
                    ? 'text-primary'
                    : 'quiet opacity-0 group-focus-within:opacity-100 group-hover:opacity-100',
                )}
                aria-pressed={marked === k}
                aria-label={
                  marked === null || marked === k ? `Mark ${k + 1} for crossing` : `Cross with ${k + 1}`
                }
                title={
                  marked === null || marked === k
                    ? 'Marks it: the next one is crossed with it'
                    : 'Crosses both'
                }
                onClick={() => press(k, true)}
              >
                <Merge size={13} />
              </button>
            </div>
          ))}
        </div>
        <aside className="flex w-48 shrink-0 flex-col border-l edge">
          {before.length > 0 && (
            <div className="flex flex-wrap gap-1 border-b edge p-2" role="group" aria-label="Tried ones">
              {before.map((_, k) => (
                <button
                  key={k}
                  type="button"
                  className="figures h-6 min-w-6 rounded border edge px-1 text-2xs hover:border-primary"
                  title={`Back to state ${k + 1}`}
                  onClick={() => goBack(k)}
                >
                  {k + 1}
                </button>
              ))}
            </div>
          )}
          <h3 className="heading px-2 pt-2 pb-1">What varies</h3>
          <Locks scene={scene} variables={variables} />
        </aside>
      </div>
    </section>
  );
}
