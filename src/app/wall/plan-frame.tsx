/** What the coordinates of a plan count in: `units` wide and high, from `origin`. */
export interface PlanUnits {
  origin: readonly [number, number];
  units: readonly [number, number];
}

/** A drawing over a live picture, as large as the view allows. */
export function PlanFrame({
  frame: { origin, units },
  aspect,
  drawing,
  label,
  picture,
  margin,
  stretched = false,
  leave,
  children,
}: {
  frame: PlanUnits;
  /** Width over height. */
  aspect: number;
  drawing: React.Ref<SVGSVGElement>;
  label: string;
  picture: React.ReactNode;
  /** Space around the picture, as a share of it. */
  margin: number;
  /** The drawing is bent to the aspect. */
  stretched?: boolean;
  /** A press beside everything. */
  leave?(): void;
  children: React.ReactNode;
}) {
  return (
    <div className="grid min-h-0 grow place-items-center p-4" onPointerDown={leave}>
      <div
        className="relative max-h-full w-full"
        style={{ aspectRatio: aspect, maxWidth: `calc((100vh - 9rem) * ${aspect})` }}
      >
        <div className="absolute" style={{ inset: `${(100 * margin) / (1 + 2 * margin)}%` }}>
          {picture}
        </div>
        <svg
          ref={drawing}
          className="absolute inset-0 h-full w-full touch-none"
          viewBox={`${origin.join(' ')} ${units.join(' ')}`}
          preserveAspectRatio={stretched ? 'none' : undefined}
          role="group"
          aria-label={label}
        >
          {children}
        </svg>
      </div>
    </div>
  );
}
