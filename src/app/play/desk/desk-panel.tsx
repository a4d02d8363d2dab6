import clsx from 'clsx';
import { LayoutGrid, Plus, Radio, Save, Smartphone, Undo2, House } from 'lucide-react';
import { useRef } from 'react';
import { deskColumns, heldPlace } from '../../../core/desk/grid';
import { addPage, controlOf } from '../../../core/show/edit-desk';
import type { DeskControl, DeskPage } from '../../../core/document/types';
import { keepDesk } from '../../actions/play-actions';
import { CommandButton } from '../../commands/command-button';
import { playSession } from '../../data/play-session';
import { editShow, endGesture } from '../../data/show-store';
import { liveStore } from '../../engine/live';
import { DeskControlView } from './desk-control';
import { Snapshots } from './snapshots';
import { useDeskPage } from './use-desk-page';

/** Pixels of a row of the page, and between two cells. */
const rowPixels = 52;
const gapPixels = 6;

/** While the desk is laid out: a control that is dragged by its middle and grows by its corner. */
function Arranged({ control, box }: { control: DeskControl; box: React.RefObject<HTMLDivElement | null> }) {
  const chosen = playSession((s) => s.chosen === control.id);
  const from = useRef<{
    x: number;
    y: number;
    place: readonly number[];
    size: readonly number[];
    grows: boolean;
  } | null>(null);
  const edit = (change: (one: DeskControl) => void): void =>
    void editShow((show) => change(controlOf(show, control.id)), `desk ${control.id} place`);
  const begin = (event: React.PointerEvent, grows: boolean): void => {
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    playSession.setState({ chosen: control.id });
    from.current = { x: event.clientX, y: event.clientY, place: control.place, size: control.size, grows };
  };
  const move = (event: React.PointerEvent): void => {
    const start = from.current;
    if (!start) return;
    const cell = (box.current!.clientWidth + gapPixels) / deskColumns;
    const dx = Math.round((event.clientX - start.x) / cell);
    const dy = Math.round((event.clientY - start.y) / (rowPixels + gapPixels));
    edit((one) => {
      if (start.grows)
        one.size = [
          Math.min(deskColumns - one.place[0], Math.max(1, start.size[0] + dx)),
          Math.min(16, Math.max(1, start.size[1] + dy)),
        ];
      else one.place = heldPlace([start.place[0] + dx, start.place[1] + dy], one.size[0]);
    });
  };
  const end = (): void => {
    from.current = null;
    endGesture();
  };
  const steps: Record<string, readonly [number, number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, -1],
    ArrowDown: [0, 1],
  };
  return (
    <button
      type="button"
      aria-label={`Lay out ${control.name}`}
      aria-pressed={chosen}
      className={clsx(
        'absolute -inset-0.5 z-10 cursor-move touch-none rounded border-2',
        chosen ? 'border-primary bg-primary/15' : 'border-dashed edge bg-base-200/30 hover:border-primary',
      )}
      onPointerDown={(event) => begin(event, false)}
      onPointerMove={move}
      onPointerUp={end}
      onPointerCancel={end}
      onClick={() => playSession.setState({ chosen: control.id })}
      onKeyDown={(event) => {
        const step = steps[event.key];
        if (!step) return;
        event.preventDefault();
        event.stopPropagation();
        edit((one) => {
          if (event.shiftKey)
            one.size = [
              Math.min(deskColumns - one.place[0], Math.max(1, one.size[0] + step[0])),
              Math.min(16, Math.max(1, one.size[1] + step[1])),
            ];
          else one.place = heldPlace([one.place[0] + step[0], one.place[1] + step[1]], one.size[0]);
        });
        endGesture();
      }}
    >
      <span
        className="absolute -right-0.5 -bottom-0.5 size-4 cursor-nwse-resize rounded-tl border-t-2 border-l-2 border-primary bg-base-100"
        onPointerDown={(event) => begin(event, true)}
        onPointerMove={move}
        onPointerUp={end}
      />
    </button>
  );
}

function Page({ page, arranging }: { page: DeskPage; arranging: boolean }) {
  const box = useRef<HTMLDivElement>(null);
  if (page.controls.length === 0)
    return (
      <p className="quiet grid grow place-items-center px-8 text-center">
        This page is empty. In Build, open where a control comes from and choose “To the desk”, or drag its
        row onto Play.
      </p>
    );
  return (
    <div
      ref={box}
      className="grid content-start"
      style={{
        gridTemplateColumns: `repeat(${deskColumns}, minmax(0, 1fr))`,
        gridAutoRows: rowPixels,
        gap: gapPixels,
      }}
      data-testid="desk-page"
    >
      {page.controls.map((control) => (
        <div
          key={control.id}
          className="relative min-h-0 min-w-0"
          data-desk-control={control.name}
          style={{
            gridColumn: `${control.place[0] + 1} / span ${control.size[0]}`,
            gridRow: `${control.place[1] + 1} / span ${control.size[1]}`,
          }}
        >
          <DeskControlView control={control} />
          {arranging && <Arranged control={control} box={box} />}
        </div>
      ))}
    </div>
  );
}

/** The desk: its pages, the controls on the one that is shown, and the snapshots of it. */
export function DeskPanel() {
  const { pages, atHand, page } = useDeskPage();
  const arranging = playSession((s) => s.arranging);
  const canWrite = liveStore((s) => Object.keys(s.desk.values).length > 0);
  return (
    <section aria-label="Desk" className="flex min-h-56 grow flex-col gap-1.5">
      <div className="flex h-9 shrink-0 items-center gap-1">
        <h2 className="mr-1 font-semibold">Desk</h2>
        <div
          role="tablist"
          aria-label="Pages of the desk"
          className="flex min-w-0 gap-1 overflow-x-auto [scrollbar-width:none]"
        >
          {atHand.map((one) => (
            <button
              key={one.id}
              type="button"
              role="tab"
              aria-selected={one.id === page?.id}
              className={clsx(
                'h-9 shrink-0 rounded border px-2.5',
                one.id === page?.id ? 'border-primary text-primary' : 'quiet edge',
              )}
              onClick={() => playSession.setState({ page: one.id, chosen: null })}
            >
              {one.name}
            </button>
          ))}
        </div>
        {(arranging || pages.length === 0) && (
          <button
            type="button"
            className="tool h-9"
            title="Adds a page for the whole show"
            onClick={() => {
              const id = editShow((show) => addPage(show, null));
              if (id) playSession.setState({ page: id, arranging: true });
            }}
          >
            <Plus size={14} /> Page
          </button>
        )}
        <span className="grow" />
        <CommandButton id="play.undo" icon={Undo2} className="h-9" />
        <CommandButton id="play.home" icon={House} className="h-9" />
        <button
          type="button"
          className="tool h-9"
          aria-label="Write the desk into the patches"
          title="Writes where the desk stands into the patches: what was found by hand is what the show begins with"
          disabled={!canWrite}
          onClick={keepDesk}
        >
          <Save size={15} />
        </button>
        <CommandButton id="play.invite" icon={Smartphone} className="h-9" />
        <BindButton />
        <button
          type="button"
          className={clsx('tool h-9', arranging && 'text-primary')}
          aria-pressed={arranging}
          title="Lay out the desk: move, size, name and fit its controls"
          onClick={() => playSession.setState({ arranging: !arranging, binding: false, chosen: null })}
        >
          <LayoutGrid size={15} /> Lay out
        </button>
      </div>
      <div className="flex min-h-0 grow flex-col overflow-y-auto p-0.5">
        {page ? (
          <Page page={page} arranging={arranging} />
        ) : (
          <p className="quiet grid grow place-items-center px-8 text-center">
            No page of the desk is for this scene yet. In Build, open where a control comes from and choose
            “To the desk”.
          </p>
        )}
      </div>
      {page && <Snapshots page={page} />}
    </section>
  );
}

function BindButton() {
  const on = playSession((s) => s.binding);
  return (
    <CommandButton id="play.bind" icon={Radio} isOn={on} className={clsx('h-9', on && 'text-secondary')} />
  );
}
