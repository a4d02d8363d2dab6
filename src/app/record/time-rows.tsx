import type { ExportRange } from '../../core/export/spec';
import { Row, Toggle } from '../parts/rows';
import { ScrubNumber } from '../parts/scrub-number';
import { framesOfDraft } from './export-draft';
import type { FormRows } from './form-rows';
import { Segments } from './segments';

/** Which frames are exported, and how many a second. */
export function TimeRows({ show, spec, set }: FormRows) {
  const { range, source, fps } = spec;
  const whole: ExportRange = source.type === 'scene' ? { type: 'loop', closed: false } : { type: 'whole' };
  const count = framesOfDraft(show, spec);
  return (
    <>
      <Row label="Frames">
        <Segments
          label="Range"
          value={range.type === 'frames' ? 'frames' : 'whole'}
          options={[
            ['whole', source.type === 'scene' ? 'One loop' : 'All of it'],
            ['frames', 'From – to'],
          ]}
          onChange={(id) =>
            set({ range: id === 'whole' ? whole : { type: 'frames', first: 0, last: (count ?? 60) - 1 } })
          }
        />
      </Row>
      {range.type === 'frames' && (
        <Row label="">
          {(['first', 'last'] as const).map((end) => (
            <ScrubNumber
              key={end}
              label={end === 'first' ? 'First frame' : 'Last frame'}
              value={range[end]}
              step={1}
              fine={1}
              min={0}
              max={1e6}
              digits={0}
              className="flex-1"
              onChange={(value) => {
                const frame = Math.round(value);
                set({
                  range:
                    end === 'first'
                      ? { ...range, first: frame, last: Math.max(frame, range.last) }
                      : { ...range, first: Math.min(frame, range.first), last: frame },
                });
              }}
            />
          ))}
        </Row>
      )}
      {range.type === 'loop' && (
        <Row label="">
          <Toggle
            label="First frame again at the end"
            on={range.closed}
            set={(closed) => set({ range: { type: 'loop', closed } })}
          />
        </Row>
      )}
      <Row label="Rate">
        <ScrubNumber
          label="Frames a second"
          value={fps}
          step={1}
          fine={0.001}
          min={1}
          max={240}
          digits={3}
          unit=" fps"
          className="w-24"
          onChange={(value) => set({ fps: value })}
        />
        <output className="figures quiet flex-1 text-right text-2xs whitespace-nowrap" aria-label="Length">
          {count === null ? 'as long as it plays' : `${count} frames · ${(count / fps).toFixed(2)} s`}
        </output>
      </Row>
    </>
  );
}
