import clsx from 'clsx';
import { Palette, SlidersHorizontal, Waves } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import { fromHex, toHex } from '../../../core/colour';
import { TextField } from '../../parts/field';
import { Label, type RowProps } from './row';

const ColourTools = lazy(() => import('./colour-tools'));
const MotionRows = lazy(() => import('./motion-rows'));

/** A colour: a chip, its hex code, and on demand its parts and the gradient that it runs through over time. */
export function ColourRow(props: RowProps<'colour'>) {
  const { scene, node, control, spec, numbers, parts, set, done, once } = props;
  const [showsParts, setShowsParts] = useState(false);
  const [showsMotion, setShowsMotion] = useState(false);
  const [showsTools, setShowsTools] = useState(false);
  const moves = Boolean(scene.nodes[node].motions[control]?.length);
  return (
    <div data-part={control}>
      <div className="flex h-7 items-center gap-2">
        <Label {...props} />
        <input
          type="color"
          aria-label={spec.label}
          className="h-6 w-10 cursor-pointer rounded border edge bg-transparent"
          value={toHex(numbers)}
          onChange={(e) => set([...fromHex(e.target.value)!, numbers[3]])}
          onBlur={done}
        />
        <TextField
          label={`${spec.label} hex`}
          value={toHex(numbers)}
          mono
          className="w-20!"
          onChange={(text) => {
            const rgb = fromHex(text);
            if (rgb) once([...rgb, numbers[3]]);
          }}
        />
        <span className="grow" />
        <button
          type="button"
          className={clsx('tool px-1', showsTools && 'text-primary')}
          aria-expanded={showsTools}
          aria-label={`Colours for ${spec.label}`}
          title="Picks it from the monitor, or from the colours of the show"
          onClick={() => setShowsTools(!showsTools)}
        >
          <Palette size={13} />
        </button>
        <button
          type="button"
          className={clsx('tool px-1', moves && 'text-primary')}
          aria-expanded={showsMotion}
          aria-label={`Colours of ${spec.label} over time`}
          title="Runs it through the colours of a gradient"
          onClick={() => setShowsMotion(!showsMotion)}
        >
          <Waves size={13} />
        </button>
        <button
          type="button"
          className="tool px-1"
          aria-expanded={showsParts}
          aria-label={`Parts of ${spec.label}`}
          title="Red, green, blue and alpha, each to be driven"
          onClick={() => setShowsParts(!showsParts)}
        >
          <SlidersHorizontal size={13} />
        </button>
      </div>
      {showsTools && (
        <Suspense fallback={null}>
          <ColourTools label={spec.label} onChoose={(rgb) => once([...rgb, numbers[3]])} />
        </Suspense>
      )}
      {showsParts ? parts : parts[3]}
      {showsMotion && (
        <div className="mt-1 mb-2 flex flex-col gap-2 rounded border-l-2 border-primary bg-base-100/60 p-2">
          <Suspense fallback={null}>
            <MotionRows place={{ scene, node, control, part: control, spec }} />
          </Suspense>
        </div>
      )}
    </div>
  );
}
