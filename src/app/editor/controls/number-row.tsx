import clsx from 'clsx';
import { Lock, PencilRuler, Sigma, SlidersHorizontal, Spline, Waves } from 'lucide-react';
import { lazy, Suspense, useState, type ReactNode } from 'react';
import { limit, rangeOf } from '../../../core/kind/controls';
import { sendHome } from '../../../core/show/edit';
import { motionsOf, reachOf } from '../../../core/document/motions';
import { catalogue } from '../../../nodes/catalogue';
import { editScene, endGesture } from '../../data/show-store';
import { usePart } from '../../engine/live';
import { ScrubNumber } from '../../parts/scrub-number';
import { shortNumber } from '../../../core/text/short-number';
import { ControlName } from './control-name';
import { wireOf, type PartPlace } from './part-place';
import { Track } from './track';

const PartSources = lazy(() => import('./part-sources'));

/** One number of a control: slider, value, and the button that opens where it comes from. */
export function NumberRow({
  place,
  label,
  value,
  lock,
  onChange,
}: {
  place: PartPlace;
  label: string;
  value: number;
  /** What locks it to the other parts of its control. */
  lock?: ReactNode;
  onChange(value: number): void;
}) {
  const { scene, node, control, part, spec } = place;
  const [open, setOpen] = useState(false);
  const live = usePart(part);
  const wire = wireOf(place);
  const formula = scene.nodes[node].formulas[part];
  const draft = scene.nodes[node].draft?.[control];
  const motions = motionsOf(scene.nodes[node], control, part);
  const driven = wire !== null || formula !== undefined || motions.length > 0;
  const range = rangeOf(spec);
  const step = spec.type === 'whole' ? 0.25 : (range[1] - range[0]) / 300;
  const min = 'min' in spec ? spec.min : undefined;
  const max = 'max' in spec ? spec.max : undefined;
  const unit = 'unit' in spec ? spec.unit : undefined;
  const isHeld =
    live !== null && Math.abs(live.asked - live.value) > 1e-6 * Math.max(1, Math.abs(live.asked));
  const set = (v: number): void => onChange(limit(spec, v));
  const fit = wire?.fit;
  const setFit = (to: [number, number]): void => {
    editScene(scene.id, (d) => void (d.wires[wire!.id].fit!.to = to), `${wire!.id} to`);
  };
  const handles = fit
    ? [
        { label: `${label} from`, value: fit.to[0], onChange: (v: number) => setFit([v, fit.to[1]]) },
        { label: `${label} to`, value: fit.to[1], onChange: (v: number) => setFit([fit.to[0], v]) },
      ]
    : [{ label, value, onChange: set }];
  const home = (): void => {
    editScene(scene.id, (d) => sendHome(d, catalogue, node, control));
  };
  const Icon = wire ? Spline : formula !== undefined ? Sigma : motions.length ? Waves : SlidersHorizontal;
  return (
    <div data-part={part}>
      <div className="flex h-7 items-center gap-2">
        <ControlName
          scene={scene.id}
          node={node}
          control={control}
          part={part}
          spec={spec}
          label={label}
          driven={driven}
          reset={home}
        />
        <Track
          range={range}
          handles={handles}
          band={motions.length && !wire && formula === undefined ? reachOf(motions, value) : null}
          bead={driven && live ? live.value : null}
          onDone={endGesture}
        />
        {lock}
        {wire || formula !== undefined ? (
          <output
            className="figures h-6 min-w-16 shrink-0 px-1.5 pt-0.5 text-right whitespace-nowrap text-primary"
            aria-label={`${label} now`}
            data-testid="live-value"
            title={
              isHeld
                ? `${shortNumber(live.asked)} is beyond the limit; ${shortNumber(live.value)} is used.`
                : undefined
            }
          >
            {live ? shortNumber(live.value) : '…'}
            {isHeld && <Lock size={10} className="ml-1 inline text-warning" aria-label="at its limit" />}
            {live && live.samples > 1 && <span className="quiet text-2xs">&thinsp;·{live.samples}</span>}
          </output>
        ) : (
          <>
            {motions.length > 0 && live && (
              <output
                className="figures shrink-0 text-2xs text-primary"
                aria-label={`${label} now`}
                data-testid="live-value"
              >
                {shortNumber(live.value, 2)}
              </output>
            )}
            <ScrubNumber
              label={`${label} value`}
              value={value}
              step={step}
              fine={step / 10}
              min={min}
              max={max}
              unit={unit}
              className="w-16 shrink-0 contain-strict"
              onChange={set}
              onDone={endGesture}
            />
          </>
        )}
        {draft !== undefined && (
          <span
            className="figures flex shrink-0 items-center text-2xs text-primary"
            title={`For work it is ${typeof draft === 'number' ? shortNumber(draft) : String(draft)}; the stage has ${shortNumber(value)}`}
          >
            <PencilRuler size={11} />
          </span>
        )}
        <button
          type="button"
          aria-label={`Source of ${label}`}
          aria-expanded={open}
          title={
            wire
              ? `Driven by ${scene.nodes[wire.from.node]?.name}`
              : formula !== undefined
                ? 'Driven by a formula'
                : motions.length
                  ? 'Moves by itself'
                  : 'Formula, wire or motion'
          }
          className={clsx('rounded p-1 hover:bg-base-300', driven ? 'text-primary' : 'quiet')}
          onClick={() => setOpen(!open)}
        >
          <Icon size={13} />
        </button>
      </div>
      {open && (
        <Suspense fallback={null}>
          <PartSources place={place} />
        </Suspense>
      )}
    </div>
  );
}
