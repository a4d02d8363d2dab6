import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { noBlend } from '../../core/wall/screens';
import { flatWarp, mostWarpPoints, withPoints } from '../../core/wall/warp';
import type { ScreenOutput } from '../../core/document/types';
import { editScreen } from '../actions/wall-actions';
import { endGesture } from '../data/show-store';
import { SelectField } from '../parts/field';
import { ScrubNumber } from '../parts/scrub-number';
import { ColourSection, DisplayRow, NameRow, same } from './output-rows';
import { PlayerRow } from './player-row';
import { type Form, length, Numbers, percent, pixels } from './inspector-parts';
import { Row, Section, Toggle } from '../parts/rows';
import { RoomSection } from './room-inspector';
import { wallSession } from '../data/wall-session';

const sides = ['left', 'right', 'top', 'bottom'] as const;

function Masks({ output }: { output: ScreenOutput }) {
  const add = (): void => {
    editScreen(output.id, (one) =>
      one.masks.push({
        points: [
          [0.25, 0.25],
          [0.75, 0.25],
          [0.75, 0.75],
          [0.25, 0.75],
        ],
        soft: 0,
        hides: 'outside',
      }),
    );
    wallSession.setState({ tab: 'output', handles: 'masks' });
  };
  return (
    <Section title="Masks">
      {output.masks.map(({ points, soft, hides }, m) => (
        <div key={m} className="mb-1.5 rounded border edge p-1.5" data-mask={m}>
          <div className="flex h-7 items-center gap-1">
            <SelectField
              label={`Mask ${m + 1} hides`}
              className="flex-1"
              value={hides}
              options={[
                ['outside', 'Hides the outside'],
                ['inside', 'Hides the inside'],
              ]}
              onChange={(v) => editScreen(output.id, (one) => (one.masks[m].hides = v as typeof hides))}
            />
            <button
              type="button"
              className="tool"
              aria-label={`Another point for mask ${m + 1}`}
              title="Adds a point after the last"
              disabled={points.length >= 32}
              onClick={() =>
                editScreen(output.id, (one) => {
                  const list = one.masks[m].points;
                  const [a, b] = [list[list.length - 1], list[0]];
                  list.push([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]);
                })
              }
            >
              <Plus size={13} />
            </button>
            <button
              type="button"
              className="tool"
              aria-label={`Remove mask ${m + 1}`}
              title="Removes this mask"
              onClick={() => editScreen(output.id, (one) => void one.masks.splice(m, 1))}
            >
              <Trash2 size={13} />
            </button>
          </div>
          <Numbers<ScreenOutput>
            edit={(change, gesture) => editScreen(output.id, change, gesture)}
            label="Soft edge"
            names={null}
            form={{ ...percent, max: 50 }}
            values={[soft]}
            set={(one, _, v) => (one.masks[m].soft = v)}
          />
        </div>
      ))}
      <button type="button" className="tool" onClick={add} disabled={output.masks.length >= 8}>
        <Plus size={13} /> Mask
      </button>
    </Section>
  );
}

function WarpSection({ output }: { output: ScreenOutput }) {
  const { warp } = output;
  const [point, setPoint] = useState(0);
  const at = Math.min(point, warp.points.length - 1);
  const counts = Array.from({ length: mostWarpPoints - 1 }, (_, k): [string, string] => [
    `${k + 2}`,
    `${k + 2}`,
  ]);
  return (
    <Section
      title="Warp"
      reset={
        same(warp, flatWarp()) ? undefined : () => editScreen(output.id, (one) => (one.warp = flatWarp()))
      }
    >
      <Row label="Points">
        {(['columns', 'rows'] as const).map((axis) => (
          <SelectField
            key={axis}
            label={`Warp ${axis}`}
            value={String(warp[axis])}
            options={counts}
            onChange={(v) =>
              editScreen(output.id, (one) => {
                const now = { columns: one.warp.columns, rows: one.warp.rows, [axis]: Number(v) };
                one.warp = withPoints(one.warp, now.columns, now.rows);
              })
            }
          />
        ))}
        <Toggle
          label="Curved"
          on={warp.smooth}
          disabled={warp.columns === 2 && warp.rows === 2}
          set={(on) => editScreen(output.id, (one) => (one.warp.smooth = on))}
        />
      </Row>
      <div className="flex min-h-7 items-center gap-2">
        <SelectField
          label="Point of the warp"
          className="w-24 shrink-0"
          value={String(at)}
          options={warp.points.map((_, k): [string, string] => [
            `${k}`,
            `Point ${(k % warp.columns) + 1}.${Math.floor(k / warp.columns) + 1}`,
          ])}
          onChange={(v) => setPoint(Number(v))}
        />
        {[0, 1].map((axis) => (
          <ScrubNumber
            key={axis}
            label={`Point ${axis ? 'y' : 'x'}`}
            value={warp.points[at][axis] * 100}
            step={0.1}
            fine={0.01}
            digits={2}
            min={-400}
            max={500}
            unit=" %"
            className="min-w-0 flex-1"
            onChange={(v) =>
              editScreen(output.id, (one) => (one.warp.points[at][axis] = v / 100), `point ${at} ${axis}`)
            }
            onDone={endGesture}
          />
        ))}
      </div>
    </Section>
  );
}

/** Everything about one screen, in numbers. */
export function ScreenInspector({ output }: { output: ScreenOutput }) {
  const { part, blend } = output;
  const turn: Form = { step: 0.5, min: -360, max: 360, unit: '°', digits: 2 };
  return (
    <div className="flex flex-col gap-0.5 px-3 pt-2 pb-4" data-testid="screen-inspector">
      <NameRow output={output} />
      <DisplayRow output={output} />
      <PlayerRow output={output} />
      <Section title="Part of the canvas">
        <Numbers<ScreenOutput>
          edit={(change, gesture) => editScreen(output.id, change, gesture)}
          label="Place"
          names={['x', 'y']}
          form={pixels}
          values={[part.x, part.y]}
          set={(one, k, v) => (one.part[k ? 'y' : 'x'] = v)}
        />
        <Numbers<ScreenOutput>
          edit={(change, gesture) => editScreen(output.id, change, gesture)}
          label="Size"
          names={['width', 'height']}
          form={length}
          values={[part.width, part.height]}
          set={(one, k, v) => (one.part[k ? 'height' : 'width'] = v)}
        />
        <Numbers<ScreenOutput>
          edit={(change, gesture) => editScreen(output.id, change, gesture)}
          label="Turn"
          names={null}
          form={turn}
          values={[part.turn]}
          set={(one, _, v) => (one.part.turn = v)}
        />
        <Row label="Mounted">
          <SelectField
            label="Quarter turns"
            className="min-w-0 flex-1"
            value={String(output.quarterTurns)}
            options={[
              ['0', 'Upright'],
              ['1', 'Turned 90°'],
              ['2', 'Turned 180°'],
              ['3', 'Turned 270°'],
            ]}
            onChange={(v) => editScreen(output.id, (one) => (one.quarterTurns = Number(v)))}
          />
          <Toggle
            label="Mirrored"
            on={output.mirrored}
            set={(on) => editScreen(output.id, (one) => (one.mirrored = on))}
          />
        </Row>
      </Section>
      <WarpSection output={output} />
      <Masks output={output} />
      <Section
        title="Edge blend"
        reset={
          same(blend, noBlend()) ? undefined : () => editScreen(output.id, (one) => (one.blend = noBlend()))
        }
      >
        <Numbers<ScreenOutput>
          edit={(change, gesture) => editScreen(output.id, change, gesture)}
          label="Left, right"
          names={['left', 'right']}
          form={percent}
          values={[blend.left, blend.right]}
          set={(one, k, v) => (one.blend[sides[k]] = v)}
        />
        <Numbers<ScreenOutput>
          edit={(change, gesture) => editScreen(output.id, change, gesture)}
          label="Top, bottom"
          names={['top', 'bottom']}
          form={percent}
          values={[blend.top, blend.bottom]}
          set={(one, k, v) => (one.blend[sides[k + 2]] = v)}
        />
        <Numbers<ScreenOutput>
          edit={(change, gesture) => editScreen(output.id, change, gesture)}
          label="Curve"
          names={null}
          form={{ step: 0.02, min: 1, max: 5, digits: 2 }}
          values={[blend.power]}
          set={(one, _, v) => (one.blend.power = v)}
        />
        <Numbers<ScreenOutput>
          edit={(change, gesture) => editScreen(output.id, change, gesture)}
          label="Gamma"
          names={null}
          form={{ step: 0.01, min: 1, max: 3, digits: 2 }}
          values={[blend.gamma]}
          set={(one, _, v) => (one.blend.gamma = v)}
        />
        <Numbers<ScreenOutput>
          edit={(change, gesture) => editScreen(output.id, change, gesture)}
          label="Black lift"
          names={null}
          form={{ ...percent, max: 50 }}
          values={[blend.lift]}
          set={(one, _, v) => (one.blend.lift = v)}
        />
      </Section>
      <ColourSection output={output} />
      <RoomSection output={output} />
    </div>
  );
}
