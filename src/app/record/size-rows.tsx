import type { ExportSpec } from '../../core/export/spec';
import { SelectField } from '../parts/field';
import { Row } from '../parts/rows';
import { ScrubNumber } from '../parts/scrub-number';
import { withOutput } from './export-draft';
import type { FormRows } from './form-rows';

const sizes: readonly (readonly [string, number])[] = [
  ['Half', 0.5],
  ['Full', 1],
  ['Double', 2],
];

/** How large it is, and what is averaged for each of its pixels. */
export function SizeRows({ show, spec, set }: FormRows) {
  const own = withOutput(show, spec, spec.output);
  return (
    <>
      <Row label="Size">
        {(['width', 'height'] as const).map((side) => (
          <ScrubNumber
            key={side}
            label={side === 'width' ? 'Width' : 'Height'}
            value={spec[side]}
            step={2}
            fine={1}
            min={1}
            max={16384}
            digits={0}
            unit=" px"
            className="flex-1"
            onChange={(value) => set({ [side]: Math.round(value) })}
          />
        ))}
      </Row>
      <Row label="">
        {sizes.map(([name, times]) => (
          <button
            key={name}
            type="button"
            className="tool flex-1"
            onClick={() =>
              set({
                width: Math.round((own.width! * times) / 2) * 2,
                height: Math.round((own.height! * times) / 2) * 2,
              })
            }
          >
            {name}
          </button>
        ))}
      </Row>
      <Row label="Supersampling">
        <SelectField
          label="Supersampling"
          className="flex-1"
          value={String(spec.supersample)}
          options={[
            ['1', 'None'],
            ['2', '2 x 2'],
            ['3', '3 x 3'],
            ['4', '4 x 4'],
          ]}
          onChange={(id) => set({ supersample: Number(id) as ExportSpec['supersample'] })}
        />
      </Row>
      <Row label="Motion blur">
        <ScrubNumber
          label="Subframes"
          value={spec.subframes}
          step={1}
          fine={1}
          min={1}
          max={64}
          digits={0}
          unit={spec.subframes === 1 ? ' (none)' : ' subframes'}
          className="flex-1"
          onChange={(value) => set({ subframes: Math.round(value) })}
        />
        {spec.subframes > 1 && (
          <ScrubNumber
            label="Shutter"
            value={spec.shutter}
            step={5}
            fine={1}
            min={1}
            max={360}
            digits={0}
            unit="° shutter"
            className="flex-1"
            onChange={(shutter) => set({ shutter })}
          />
        )}
      </Row>
    </>
  );
}
