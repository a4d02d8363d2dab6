import clsx from 'clsx';
import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalSpaceAround,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalSpaceAround,
  ExternalLink,
  Grid3x3,
  Plus,
  Trash2,
} from 'lucide-react';
import type { Output, PixelString } from '../../core/document/types';
import { testPictures, type TestPicture } from '../../engine/protocol/protocol';
import { openScreen } from '../actions/open-stage';
import { CommandButton } from '../commands/command-button';
import { applies, commandOf, runCommand, titleOf } from '../commands/registry';
import { useShow } from '../data/show-store';
import { SelectField } from '../parts/field';
import { dropFocus } from '../parts/live-button';
import { useStage } from '../data/stage-windows';
import { CanvasPlan } from './canvas-plan';
import { DisplayChoice } from './display-choice';
import { pixelCount } from '../../core/wall/pixels/pixels';
import { protocolNames, StringInspector } from './string-inspector';
import { LedInspector } from './led-inspector';
import { LedPlan } from './led-plan';
import { OutputPlan } from './output-plan';
import { RoomPlan } from './room-plan';
import { RoomInspector } from './room-inspector';
import { ScreenInspector } from './screen-inspector';
import { chooseOutputs, wallSession } from '../data/wall-session';
import { choosePicture, toggleTests } from '../actions/wall-actions';

const pictureNames: Record<TestPicture, string> = {
  grid: 'Grid',
  bars: 'Bars',
  ramp: 'Ramp',
  focus: 'Focus',
  blend: 'Blend',
};

const alignments = [
  ['wall.align-left', AlignStartVertical],
  ['wall.align-centre', AlignCenterVertical],
  ['wall.align-right', AlignEndVertical],
  ['wall.align-top', AlignStartHorizontal],
  ['wall.align-middle', AlignCenterHorizontal],
  ['wall.align-bottom', AlignEndHorizontal],
  ['wall.distribute-x', AlignHorizontalSpaceAround],
  ['wall.distribute-y', AlignVerticalSpaceAround],
] as const;

const stringState = (string: PixelString): string => {
  const { protocol, universe } = string.send;
  const where = protocol === 'artnet' || protocol === 'sacn' ? ` ${universe}` : '';
  return `${pixelCount(string)} px · ${protocolNames[protocol]}${where}`;
};

function OutputRow({ output }: { output: Output }) {
  const isChosen = wallSession((s) => s.chosen.includes(output.id));
  const test = wallSession((s) => s.tests[output.id]);
  const open = useStage(output.id);
  return (
    <li
      className={clsx(
        'group flex items-center gap-1 rounded border px-1',
        isChosen ? 'border-primary bg-base-300/60' : 'border-transparent',
      )}
      data-output-row={output.name}
    >
      <button
        type="button"
        className="min-w-0 grow px-1.5 py-1.5 text-left"
        aria-pressed={isChosen}
        onClick={(e) => {
          const { chosen } = wallSession.getState();
          if (e.shiftKey || e.ctrlKey)
            chooseOutputs(isChosen ? chosen.filter((id) => id !== output.id) : [...chosen, output.id]);
          else chooseOutputs([output.id]);
        }}
      >
        <span className="block truncate font-semibold">{output.name}</span>
        <span className="figures quiet block truncate text-2xs" data-testid="screen-state">
          {output.type === 'string'
            ? stringState(output)
            : open
              ? `open · ${open.width} x ${open.height}${open.hertz ? ` · ${open.hertz} Hz` : ''}`
              : 'closed'}
          {test ? ` · ${pictureNames[test].toLowerCase()}` : ''}
        </span>
      </button>
      <button
        type="button"
        className={clsx('tool', test && 'text-primary')}
        aria-label={`Test picture on ${output.name}`}
        aria-pressed={test !== undefined}
        title="Test picture on this output"
        onClick={() => toggleTests([output.id])}
      >
        <Grid3x3 size={14} />
      </button>
      {output.type === 'string' ? (
        <span className="w-8" />
      ) : (
        <button
          type="button"
          className={clsx('tool', open && 'text-primary')}
          aria-label={`Open ${output.name}`}
          title={open ? 'Brings its window to the front' : 'Opens its window; F there fills the display'}
          onClick={() => openScreen(output.id)}
        >
          <ExternalLink size={14} />
        </button>
      )}
    </li>
  );
}

function OutputList() {
  const outputs = useShow((show) => show.wall.outputs);
  const picture = wallSession((s) => s.picture);
  const shown = wallSession((s) => Object.keys(s.tests).length > 0);
  wallSession((s) => s.chosen);
  return (
    <aside className="panel flex w-64 shrink-0 flex-col border-r edge" aria-label="Outputs">
      <div className="flex h-10 items-center border-b edge px-2">
        <h2 className="grow px-1 font-semibold">Outputs</h2>
        <Plus size={14} className="quiet" aria-hidden />
        <button
          type="button"
          className="tool px-1!"
          title={titleOf(commandOf('wall.add-screen'))}
          onClick={() => runCommand('wall.add-screen')}
        >
          Screen
        </button>
        <button
          type="button"
          className="tool px-1!"
          title={titleOf(commandOf('wall.add-led'))}
          onClick={() => runCommand('wall.add-led')}
        >
          LED
        </button>
        <button
          type="button"
          className="tool px-1!"
          title={titleOf(commandOf('wall.add-string'))}
          onClick={() => runCommand('wall.add-string')}
        >
          String
        </button>
        <button
          type="button"
          className="tool"
          aria-label="Remove the chosen outputs"
          title={titleOf(commandOf('edit.delete'))}
          disabled={!applies(commandOf('edit.delete'))}
          onClick={() => runCommand('edit.delete')}
        >
          <Trash2 size={14} />
        </button>
      </div>
      {outputs.length === 0 ? (
        <p className="quiet p-3">
          A screen takes a part of the canvas to one display. Without any, Stage shows the whole canvas.
        </p>
      ) : (
        <ul className="flex min-h-0 grow flex-col gap-0.5 overflow-y-auto p-1.5">
          {outputs.map((output) => (
            <OutputRow key={output.id} output={output} />
          ))}
        </ul>
      )}
      <DisplayChoice />
      {outputs.length > 0 && (
        <div className="flex flex-col gap-1.5 border-t edge p-2">
          <div className="flex items-center gap-1.5">
            <SelectField
              label="Test picture"
              className="min-w-0 flex-1"
              value={picture}
              options={testPictures.map((id): [string, string] => [id, pictureNames[id]])}
              onChange={(id) => choosePicture(id as TestPicture)}
            />
            <button
              type="button"
              className={clsx('tool', shown && 'bg-primary text-primary-content')}
              aria-pressed={shown}
              title={titleOf(commandOf('wall.test-all'))}
              onClick={() => runCommand('wall.test-all')}
            >
              <Grid3x3 size={14} /> On all
            </button>
          </div>
          <button
            type="button"
            className="btn btn-sm"
            title={titleOf(commandOf('wall.open-all'))}
            onClick={() => runCommand('wall.open-all')}
          >
            <ExternalLink size={14} /> Open all screens
          </button>
        </div>
      )}
    </aside>
  );
}

function Tabs({ output }: { output: Output | undefined }) {
  const { tab, handles, ledPlan, chosen } = wallSession();
  const isLed = output?.type === 'led';
  const choices = isLed
    ? ([
        ['tiles', 'Tiles', ledPlan === 'tiles', () => wallSession.setState({ ledPlan: 'tiles' })],
        ['raster', 'Raster', ledPlan === 'raster', () => wallSession.setState({ ledPlan: 'raster' })],
      ] as const)
    : ([
        ['warp', 'Warp', handles === 'warp', () => wallSession.setState({ handles: 'warp' })],
        ['masks', 'Masks', handles === 'masks', () => wallSession.setState({ handles: 'masks' })],
      ] as const);
  const tabs = [
    ['canvas', 'Canvas'],
    ['output', output ? output.name : 'Output'],
    ['room', 'Room'],
  ] as const;
  return (
    <div className="panel flex h-10 items-center gap-1 border-b edge px-2">
      <div role="tablist" aria-label="Plans" className="flex h-full">
        {tabs.map(([id, label]) => (
          <button
            key={id}
            type="button"
            role="tab"
            aria-selected={tab === id}
            disabled={id === 'output' && !output}
            className={clsx(
              'max-w-48 truncate border-b-2 px-2.5 disabled:opacity-40',
              tab === id ? 'border-primary font-semibold' : 'quiet border-transparent',
            )}
            onClick={() => wallSession.setState({ tab: id })}
          >
            {label}
          </button>
        ))}
      </div>
      <span className="grow" />
      {tab === 'room' ? null : tab === 'canvas' || !output ? (
        <div role="group" aria-label="Align" className="flex">
          {alignments.map(([id, icon]) => (
            <CommandButton key={id} id={id} icon={icon} className={chosen.length > 1 ? '' : 'opacity-30'} />
          ))}
        </div>
      ) : (
        <div role="group" aria-label="Handles" className="flex">
          {choices.map(([id, label, isOn, show]) => (
            <button
              key={id}
              type="button"
              className={clsx('tool', isOn ? 'text-primary' : 'quiet')}
              aria-pressed={isOn}
              onClick={show}
            >
              {label}
            </button>
          ))}
        </div>
      )}
    </div>
  );
}

/** All outputs of the show: what each takes of the canvas, and how it is bent onto its surface. */
export function WallView() {
  const chosen = wallSession((s) => s.chosen);
  const tab = wallSession((s) => s.tab);
  const outputs = useShow((show) => show.wall.outputs);
  const output = chosen.length === 1 ? outputs.find(({ id }) => id === chosen[0]) : undefined;
  return (
    <main className="flex h-full overflow-x-auto" onClick={dropFocus}>
      <OutputList />
      <section className="flex min-w-104 grow flex-col" aria-label="Plan">
        <Tabs output={output?.type === 'string' ? undefined : output} />
        {tab === 'room' ? (
          <RoomPlan />
        ) : tab !== 'output' || !output || output.type === 'string' ? (
          <CanvasPlan />
        ) : output.type === 'led' ? (
          <LedPlan led={output} />
        ) : (
          <OutputPlan output={output} />
        )}
      </section>
      <aside
        className="panel w-80 shrink-0 overflow-x-hidden overflow-y-auto border-l edge"
        aria-label="Inspector"
      >
        {output ? (
          output.type === 'string' ? (
            <StringInspector key={output.id} output={output} />
          ) : output.type === 'led' ? (
            <LedInspector key={output.id} output={output} />
          ) : (
            <ScreenInspector key={output.id} output={output} />
          )
        ) : tab === 'room' ? (
          <RoomInspector />
        ) : (
          <p className="quiet p-3">
            {chosen.length > 1
              ? `${chosen.length} outputs are chosen. Align them above the plan, or move them together.`
              : 'Choose an output to see its numbers. Drag parts on the canvas; edges meet by themselves, with Alt they move freely.'}
          </p>
        )}
      </aside>
    </main>
  );
}
