import { useStore, ViewportPortal } from '@xyflow/react';
import type { Link } from '../../core/patch/links';
import { cardSize } from './flow-model';

/** Faint lines to nodes that others use without a wire: from their upper edge to the card that names them. */
export default function LinkLines({
  links,
  focused,
}: {
  links: readonly Link[];
  focused: ReadonlySet<string> | null;
}) {
  // They follow a card while it is dragged.
  const ends = useStore(({ nodeLookup }) =>
    links
      .map(({ from, to }) => {
        const a = nodeLookup.get(from)?.internals.positionAbsolute;
        const b = nodeLookup.get(to);
        const at = b?.internals.positionAbsolute;
        const low = (at?.y ?? 0) + (b?.measured.height ?? cardSize.height);
        return a && at ? [a.x, a.y, at.x, low].map(Math.round).join(' ') : '';
      })
      .join(','),
  ).split(',');
  return (
    <ViewportPortal>
      <svg className="pointer-events-none absolute top-0 left-0 -z-1 size-px overflow-visible" aria-hidden>
        {links.map(({ from, to, by }, k) => {
          if (!ends[k]) return null;
          const [ax, ay, bx, by2] = ends[k].split(' ').map(Number);
          const [sx, tx] = [ax + cardSize.width / 2 + 14, bx + cardSize.width / 2 + 14];
          const bend = Math.max(40, Math.abs(ay - by2) / 2);
          const isAside = focused !== null && !(focused.has(from) && focused.has(to));
          return (
            <path
              key={`${from} ${to}`}
              data-link={by}
              d={`M ${sx} ${ay} C ${sx} ${ay - bend}, ${tx} ${by2 + bend}, ${tx} ${by2}`}
              fill="none"
              stroke="var(--wire-signal)"
              strokeWidth={1.5}
              strokeDasharray="1 5"
              strokeLinecap="round"
              opacity={isAside ? 0.12 : 0.6}
            />
          );
        })}
      </svg>
    </ViewportPortal>
  );
}
