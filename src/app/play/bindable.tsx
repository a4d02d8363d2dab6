import clsx from 'clsx';
import { sourceName } from '../../core/desk/bindings';
import type { BindTarget } from '../../core/document/types';
import { playSession, targetKey } from '../data/play-session';
import { useShow } from '../data/show-store';
import { learnBinding } from '../inputs/learn-store';

/** Something that a dial, pad, key or message can be bound to: while binding, a click chooses it and shows what moves it. */
export function Bindable({
  target,
  label,
  className,
  style,
  children,
}: {
  target: BindTarget;
  label: string;
  className?: string;
  style?: React.CSSProperties;
  children: React.ReactNode;
}) {
  const binding = playSession((s) => s.binding);
  const key = targetKey(target);
  const bound = useShow((show) =>
    binding
      ? show.bindings
          .filter((one) => targetKey(one.target) === key)
          .map(({ source }) => sourceName(source))
          .join(', ')
      : '',
  );
  return (
    <div className={clsx('relative', className)} style={style}>
      {children}
      {binding && (
        <button
          type="button"
          className={clsx(
            'absolute inset-0 z-10 flex items-end justify-center overflow-hidden rounded border-2 border-dashed border-secondary p-0.5 text-center text-2xs leading-tight',
            bound ? 'bg-secondary/40' : 'bg-secondary/15',
          )}
          aria-label={`Bind ${label}`}
          title={bound ? `${label}: ${bound}. Click to bind another.` : `Bind ${label}`}
          onClick={() => {
            playSession.setState({ binding: false });
            learnBinding(target, label);
          }}
        >
          <span className="rounded bg-base-100/80 px-0.5">{bound}</span>
        </button>
      )}
    </div>
  );
}
