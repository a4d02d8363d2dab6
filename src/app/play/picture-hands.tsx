import { useRef } from 'react';
import { targetSpec } from '../../core/desk/value';
import type { DeskControl, Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { useShow } from '../data/show-store';
import { perform } from '../engine/perform';
import { liveStore } from '../engine/live';
import { useDeskValue } from './desk/use-desk';

/** Whether a pad x/y stands for a place on the picture, in heights from its middle. */
function isPlace(show: Pick<Show, 'scenes'>, control: DeskControl, scene: string): boolean {
  if (control.type !== 'xy' || control.targets.length < 2) return false;
  return control.targets.every((target) => {
    const spec = targetSpec(show, target, catalogue)?.spec;
    return target.scene === scene && spec?.type === 'point' && spec.handle?.as === 'place';
  });
}

function Grip({ control, aspect, frame }: { control: DeskControl; aspect: number; frame: () => DOMRect }) {
  const value = useDeskValue(control);
  if (typeof value === 'string') return null;
  const [x, y] = value;
  const put = (event: React.PointerEvent): void => {
    const { left, top, width, height } = frame();
    perform({
      type: 'desk',
      control: control.id,
      value: [((event.clientX - left) / width - 0.5) * aspect, 0.5 - (event.clientY - top) / height],
    });
  };
  const steps: Record<string, readonly [number, number]> = {
    ArrowLeft: [-0.01, 0],
    ArrowRight: [0.01, 0],
    ArrowDown: [0, -0.01],
    ArrowUp: [0, 0.01],
  };
  return (
    <button
      type="button"
      className="pointer-events-auto absolute size-11 -translate-1/2 cursor-grab touch-none rounded-full border-2 border-primary/70 bg-primary/10 outline-offset-2 active:cursor-grabbing active:bg-primary/30"
      aria-label={`${control.name} on the picture`}
      title={`Drag ${control.name} on the picture, or move it with the arrow keys`}
      data-grip={control.name}
      style={{ left: `${(x / aspect + 0.5) * 100}%`, top: `${(0.5 - y) * 100}%` }}
      onPointerDown={(event) => {
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => event.currentTarget.hasPointerCapture(event.pointerId) && put(event)}
      onKeyDown={(event) => {
        const step = steps[event.key];
        if (!step) return;
        event.preventDefault();
        event.stopPropagation();
        perform({ type: 'desk', control: control.id, value: [x + step[0], y + step[1]] });
      }}
    />
  );
}

/** What can be grabbed on the picture that is on air: pads x/y that stand for a place in it. */
export function PictureHands({ aspect }: { aspect: number }) {
  const desk = useShow((show) => show.desk);
  const scenes = useShow((show) => show.scenes);
  const onAir = liveStore((s) => s.program.program);
  const box = useRef<HTMLDivElement>(null);
  const places = desk
    .flatMap(({ controls }) => controls)
    .filter((control) => isPlace({ scenes }, control, onAir));
  return (
    <div ref={box} className="pointer-events-none absolute inset-0" data-testid="picture-hands">
      {places.map((control) => (
        <Grip
          key={control.id}
          control={control}
          aspect={aspect}
          frame={() => box.current!.getBoundingClientRect()}
        />
      ))}
    </div>
  );
}
