/** Letters at the end of a name that are always shown. */
const tail = 5;

/** A name that is shortened in its middle where there is no room: what tells it from others often stands at its end. */
export function MiddleName({ name }: { name: string }) {
  if (name.length <= 2 * tail) return <span className="truncate">{name}</span>;
  return (
    <span className="flex min-w-0 whitespace-pre">
      <span className="truncate">{name.slice(0, -tail)}</span>
      <span className="shrink-0">{name.slice(-tail)}</span>
    </span>
  );
}
