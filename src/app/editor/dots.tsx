import { useStore } from '@xyflow/react';

/** Units of the patch between two dots. */
const gap = 24;

/**
 * Dots on the ground of the patch, which tell how it is moved. A layer that is moved by less than one of its steps: a pattern of the patch's own would be
 * painted again with everything that changes on the page.
 */
export function Dots() {
  const [x, y, zoom] = useStore((s) => s.transform);
  const step = gap * zoom;
  const radius = Math.max(0.5, zoom / 2);
  const within = (at: number): number => (((at % step) + step) % step) - step;
  return (
    <div
      aria-hidden
      className="live pointer-events-none absolute top-0 left-0 -z-10"
      style={{
        width: `calc(100% + ${step}px)`,
        height: `calc(100% + ${step}px)`,
        transform: `translate(${within(x)}px, ${within(y)}px)`,
        backgroundImage: `radial-gradient(circle, var(--color-base-300) ${radius}px, transparent ${radius + 0.5}px)`,
        backgroundSize: `${step}px ${step}px`,
      }}
    />
  );
}
