import { Pipette } from 'lucide-react';
import { useMemo } from 'react';
import { toHex } from '../../../core/colour';
import { paletteOf } from '../../../core/show/palette';
import { catalogue } from '../../../nodes/catalogue';
import { pickColour, picking } from '../../data/picking';
import { useShow } from '../../data/show-store';

/** Where a colour can come from: the monitor, or the colours that the show uses. */
export default function ColourTools({
  label,
  onChoose,
}: {
  label: string;
  onChoose(rgb: readonly [number, number, number]): void;
}) {
  const show = useShow((now) => now);
  const palette = useMemo(() => paletteOf(show, catalogue), [show]);
  const isPicking = picking((s) => s.take !== null);
  return (
    <div className="my-1 flex flex-wrap items-center gap-1" role="group" aria-label={`Colours for ${label}`}>
      <button
        type="button"
        className={`tool px-1.5 ${isPicking ? 'text-primary' : ''}`}
        aria-pressed={isPicking}
        aria-label={`Pick ${label} from the monitor`}
        title="Takes the colour that is clicked on the monitor"
        onClick={() => pickColour(isPicking ? null : onChoose)}
      >
        <Pipette size={13} />
      </button>
      {palette.map((colour) => (
        <button
          key={toHex(colour)}
          type="button"
          data-swatch={toHex(colour)}
          aria-label={`${label} ${toHex(colour)}`}
          title={`${toHex(colour)}, a colour of this show`}
          className="size-5 rounded-sm border edge hover:scale-110 focus-visible:scale-110"
          style={{ background: toHex(colour) }}
          onClick={() => onChoose([colour[0], colour[1], colour[2]])}
        />
      ))}
    </div>
  );
}
