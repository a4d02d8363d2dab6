import { EyeOff, Frame, Gauge, Grip, Plus } from 'lucide-react';
import { lazy, Suspense, useMemo, useState } from 'react';
import type { Scene } from '../../core/document/types';
import { CommandButton } from '../commands/command-button';
import { commandOf, runCommand, titleOf } from '../commands/registry';
import { picking } from '../data/picking';
import { useSession } from '../data/session';
import { useShow } from '../data/show-store';
import { EngineCanvas } from '../engine/engine-canvas';
import { listenToPointer } from '../inputs/keys-pointer';
import { liveStore } from '../engine/live';
import { costAt } from '../engine/places';
import { shortNumber } from '../../core/text/short-number';
import { useAltNode } from './alt-node';
import { CompareButton, comparison } from './compare-button';
import { WhyDark } from './why-dark';

function Costs({ scene }: { scene: Scene }) {
  const stats = liveStore((s) => s.stats);
  if (!stats) return null;
  const rows = Object.keys(scene.nodes)
    .flatMap((id): [string, number][] => {
      const ms = costAt(scene.id, id, stats.nodeMs);
      return ms === undefined ? [] : [[id, ms]];
    })
    .sort((a, b) => b[1] - a[1]);
  const most = Math.max(0.1, ...rows.map(([, ms]) => ms));
  return (
    <div className="max-h-40 overflow-y-auto border-t edge px-3 py-2" data-testid="costs">
      <p className="figures quiet mb-1 text-2xs">
        {stats.passes} passes · {stats.targets} targets · {stats.shaders} shaders · {stats.cpuMs.toFixed(1)}{' '}
        ms worker · <span data-testid="stage-frames">{stats.stageFrames}</span> frames on stage
      </p>
      {rows.map(([id, ms]) => (
        <div key={id} className="flex items-center gap-2">
          <span className="w-28 truncate">{scene.nodes[id].name}</span>
          <span className="h-1.5 rounded-full bg-secondary" style={{ width: `${(ms / most) * 45}%` }} />
          <span className="figures quiet text-2xs whitespace-nowrap">{ms.toFixed(2)} ms</span>
        </div>
      ))}
      {rows.length === 0 && (
        <p className="quiet text-2xs">
          This graphics card does not tell the time of single steps, or nothing changes.
        </p>
      )}
    </div>
  );
}

const MonitorOverlay = lazy(() => import('./monitor-overlay'));
const MonitorPick = lazy(() => import('./monitor-pick'));
const MonitorCompare = lazy(() => import('./monitor-compare'));

const guides = [
  ['handles', Grip],
  ['cross', Plus],
  ['safe', Frame],
] as const;

function GuideButtons() {
  const shown = useSession((s) => s.guides);
  return guides.map(([key, icon]) => (
    <CommandButton
      key={key}
      id={`view.${key}`}
      icon={icon}
      isOn={shown[key]}
      className={shown[key] ? 'text-primary' : ''}
    />
  ));
}

/** What the audience would see of the scene that is open, and what it costs. */
export function Monitor({ scene }: { scene: Scene }) {
  const canvas = useShow((show) => show.canvas);
  const stats = liveStore((s) => s.stats);
  const graphics = liveStore((s) => s.graphics);
  const without = useAltNode((s) => s.node);
  const [costs, setCosts] = useState(false);
  const usesDrafts = useSession((s) => s.usesDrafts);
  const hasDrafts = Object.values(scene.nodes).some(({ draft }) => draft !== undefined);
  const isPicking = picking((s) => s.take !== null);
  const isComparing = comparison((s) => s.a !== null);
  const source = useMemo(() => ({ type: 'scene' as const, scene: scene.id, without }), [scene.id, without]);
  return (
    <section aria-label="Monitor" className="shrink-0">
      <div className="relative w-full" style={{ aspectRatio: `${canvas.width} / ${canvas.height}` }}>
        <EngineCanvas
          source={source}
          className="h-full w-full"
          listen={listenToPointer}
          label={`Picture of ${scene.name}`}
        />
        {isComparing && (
          <Suspense fallback={null}>
            <MonitorCompare place={scene.id} />
          </Suspense>
        )}
        <Suspense fallback={null}>
          <MonitorOverlay scene={scene} aspect={canvas.width / canvas.height} />
        </Suspense>
        {without && scene.nodes[without] && (
          <span
            className="absolute top-2 left-2 flex items-center gap-1.5 rounded bg-primary px-2 py-0.5 font-semibold text-primary-content"
            data-testid="without"
          >
            <EyeOff size={13} /> without {scene.nodes[without].name}
          </span>
        )}
        <WhyDark scene={scene} />
        {isPicking && (
          <Suspense fallback={null}>
            <MonitorPick place={scene.id} />
          </Suspense>
        )}
        {graphics !== 'fine' && (
          <span className="absolute right-2 bottom-2 rounded bg-error px-2 py-0.5 text-error-content">
            graphics away
          </span>
        )}
      </div>
      <div className="flex h-7 items-center gap-1 px-3">
        <span className="live figures quiet h-4 w-36 min-w-0 truncate text-2xs leading-4 contain-strict">
          {stats ? `${stats.width} x ${stats.height} · ${shortNumber(stats.frameMs, 1)} ms` : '…'}
        </span>
        {hasDrafts && (
          <button
            type="button"
            className={`tool px-1.5 text-2xs ${usesDrafts ? 'text-primary' : ''}`}
            aria-pressed={!usesDrafts}
            title={titleOf(commandOf('view.full'))}
            onClick={() => runCommand('view.full')}
          >
            {usesDrafts ? 'For work' : 'Full'}
          </button>
        )}
        <span className="grow" />
        <CompareButton place={scene.id} />
        <GuideButtons />
        <button
          type="button"
          className="tool"
          aria-pressed={costs}
          onClick={() => setCosts(!costs)}
          title="Where the time goes"
        >
          <Gauge size={13} /> Cost
        </button>
      </div>
      {costs && <Costs scene={scene} />}
    </section>
  );
}
