import { Check, Wand2 } from 'lucide-react';
import { useMemo } from 'react';
import { nameOfNode } from '../../core/module/open-place';
import { placeOfNode } from '../../core/module/place';
import { takeSceneApart } from '../../core/module/take-apart';
import { kindOf } from '../../core/kind/kind';
import { fitPace, loopReport, type Pace } from '../../core/show/loop-report';
import type { Scene, SceneLoop } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { editScene, endGesture, useShow } from '../data/show-store';
import { ScrubNumber } from '../parts/scrub-number';
import { shortNumber } from '../../core/text/short-number';
import { SelectField } from '../parts/field';
import { goTo } from './going-to';

const unitWords: Readonly<Record<Pace['unit'], string>> = {
  hertz: 'a second',
  beats: 'beats each',
  loop: 'a loop',
  period: 's',
  seconds: 's',
};

/** Seconds as a performer says them. */
function longWords(seconds: number): string {
  if (seconds < 90) return `${shortNumber(seconds, 2)} s`;
  if (seconds < 5400) return `${shortNumber(seconds / 60, 1)} min`;
  return `${shortNumber(seconds / 3600, 1)} h`;
}

/** The loop of a scene: its length, whether rates are locked to it, and what does not fit. */
export default function LoopSection({ scene }: { scene: Scene }) {
  const tempo = useShow((show) => show.tempo);
  const fps = useShow((show) => show.canvas.fps);
  const { loop } = scene;
  const show = useShow((s) => s);
  // What turns inside of modules has to fit as well.
  const flat = useMemo(() => takeSceneApart(scene, show.modules, catalogue), [scene, show.modules]);
  const report = loopReport(flat, catalogue, tempo, fps);
  const unfit = report.paces.filter((pace) => pace.nearest !== null);
  const set = (change: Partial<SceneLoop>, gesture: string | null = null): void => {
    editScene(scene.id, (draft) => void (draft.loop = { ...draft.loop, ...change }), gesture);
  };
  /** Another unit, the same length as near as whole numbers of it allow. */
  const setUnit = (unit: SceneLoop['unit']): void => {
    const { seconds } = report;
    const length =
      unit === 'beats' ? (seconds * tempo.bpm) / 60 : unit === 'frames' ? seconds * fps : seconds;
    set({ unit, length: unit === 'seconds' ? Number(length.toFixed(3)) : Math.max(1, Math.round(length)) });
  };
  const fit = (paces: readonly Pace[]): void =>
    paces.forEach((pace) => {
      const { place, node } = placeOfNode(scene.id, pace.node);
      editScene(place, (draft) => fitPace(draft, { ...pace, node }), 'fit loops');
    });
  const nameOf = ({ node, part }: Pace): string => {
    const [name, axis] = part.split('.');
    const label = kindOf(catalogue, flat.nodes[node])?.controls[name]?.label ?? name;
    return `${nameOfNode(show, scene.id, node)} · ${axis ? `${label} ${axis}` : label}`;
  };
  return (
    <section aria-label="Loop" className="mb-3">
      <h3 className="heading mt-1">Loop of the scene</h3>
      <div className="flex h-7 items-center gap-2">
        <span className="w-24 shrink-0">Length</span>
        <ScrubNumber
          label="Loop length"
          value={loop.length}
          step={loop.unit === 'frames' ? 1 : 0.25}
          fine={loop.unit === 'frames' ? 0.25 : 0.05}
          digits={loop.unit === 'frames' ? 0 : 3}
          min={loop.unit === 'frames' ? 1 : 0.1}
          max={100000}
          className="w-16"
          onChange={(length) => set({ length: loop.unit === 'frames' ? Math.round(length) : length }, 'loop')}
          onDone={endGesture}
        />
        <SelectField
          label="Loop length in"
          value={loop.unit}
          options={[
            ['beats', 'beats'],
            ['seconds', 'seconds'],
            ['frames', 'frames'],
          ]}
          onChange={(unit) => setUnit(unit as SceneLoop['unit'])}
        />
        <span className="figures quiet text-2xs">{shortNumber(report.seconds, 2)} s</span>
      </div>
      <label
        className="flex h-7 items-center gap-2"
        title="While it is on, every rate makes whole cycles of the loop; what is typed stays as it is"
      >
        <span className="w-24 shrink-0">Lock to loop</span>
        <input
          type="checkbox"
          aria-label="Lock to loop"
          className="toggle toggle-xs toggle-primary"
          checked={loop.lock}
          onChange={(e) => set({ lock: e.target.checked })}
        />
      </label>
      {report.joint !== null && (
        <p className="quiet my-1" data-testid="joint">
          {report.paces.length} {report.paces.length === 1 ? 'rate' : 'rates'}; all are where they began after{' '}
          <span className="figures text-base-content">{longWords(report.joint)}</span>.
        </p>
      )}
      {unfit.length === 0 && report.paces.length > 0 && (
        <p className="flex items-center gap-1.5 text-success">
          <Check size={13} /> Every rate fits the loop.
        </p>
      )}
      {unfit.length > 0 && !loop.lock && (
        <ul className="flex flex-col gap-0.5" aria-label="Rates that do not fit">
          {unfit.map((pace) => (
            <li key={`${pace.node} ${pace.part} ${pace.motion}`} className="flex items-center gap-1.5">
              <button
                type="button"
                className="min-w-0 grow truncate text-left hover:underline"
                onClick={() => {
                  const at = placeOfNode(scene.id, pace.node);
                  goTo(at.place, at.node);
                }}
                title={`${nameOf(pace)}: ${shortNumber(pace.value)} ${unitWords[pace.unit]} makes ${shortNumber(pace.cycles, 2)} cycles of the loop`}
              >
                {nameOf(pace)} <span className="figures quiet text-2xs">{shortNumber(pace.cycles, 2)}×</span>
              </button>
              <button
                type="button"
                className="tool shrink-0 px-1! text-primary"
                title={`The nearest that fits: ${shortNumber(pace.nearest!, 4)} ${unitWords[pace.unit]}`}
                onClick={() => fit([pace])}
              >
                <Wand2 size={12} /> {shortNumber(pace.nearest!)}
              </button>
            </li>
          ))}
          {unfit.length > 1 && (
            <button type="button" className="tool self-start" onClick={() => fit(unfit)}>
              Fit all
            </button>
          )}
        </ul>
      )}
      {unfit.length > 0 && loop.lock && (
        <p className="quiet">
          {unfit.length} {unfit.length === 1 ? 'rate is' : 'rates are'} rounded to whole cycles.
        </p>
      )}
    </section>
  );
}
