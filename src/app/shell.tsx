import clsx from 'clsx';
import {
  Keyboard,
  MonitorUp,
  ServerOff,
  Moon,
  Pause,
  Play,
  SkipBack,
  Snowflake,
  StepForward,
  Sun,
  SunDim,
} from 'lucide-react';
import { lazy, Suspense, useEffect } from 'react';
import { NavLink, Outlet, useLocation } from 'react-router';
import { CommandButton } from './commands/command-button';
import { controlDrag, sendToDesk } from './actions/play-actions';
import { listenToCommandKeys } from './commands/listen';
import { commandOf, runCommand, titleOf } from './commands/registry';
import { editShow, endGesture, useShow } from './data/show-store';
import { recordingStore } from './data/recording-store';
import { useSession } from './data/session';
import { inputStore } from './inputs/input-store';
import { LearnBanner } from './inputs/learn-banner';
import { machinesStore } from './machines/machines-store';
import { perform } from './engine/perform';
import { firstSteps } from './data/first-steps';
import { helpSession } from './data/help-session';
import { historySession } from './data/history-session';
import { liveStore } from './engine/live';
import { ScrubNumber } from './parts/scrub-number';
import { Elsewhere } from './data/elsewhere';
import { Opened, useIsOpen } from './data/opened';
import { dropFocus } from './parts/live-button';

const HistoryPanel = lazy(() => import('./history/history-panel'));
const CommandList = lazy(() => import('./commands/command-list'));
const HelpPanel = lazy(() => import('./help/help-panel'));
const FirstSteps = lazy(() => import('./help/first-steps'));

const views = [
  ['/build', 'Build'],
  ['/play', 'Play'],
  ['/wall', 'Wall'],
  ['/inputs', 'Inputs'],
  ['/shows', 'Shows'],
  ['/record', 'Record'],
  ['/preflight', 'Preflight'],
  ['/machines', 'Machines'],
] as const;

/** A control that was dragged out of the inspector onto Play. */
function dropOnDesk(text: string): void {
  const { scene, node, part } = JSON.parse(text) as { scene: string; node: string; part: string };
  sendToDesk(scene, node, part);
}

function BeatLamps() {
  const beats = useShow((show) => show.tempo.beatsPerBar);
  const beat = liveStore((s) => Math.floor(s.transport.beat));
  const playing = liveStore((s) => s.transport.playing);
  const at = ((beat % beats) + beats) % beats;
  return (
    <div className="live flex gap-1" role="img" aria-label={`Beat ${at + 1} of ${beats}`}>
      {Array.from({ length: beats }, (_, k) => (
        <span
          key={k}
          className={clsx(
            'h-2 w-2 rounded-full',
            k === at ? (playing ? 'bg-primary' : 'bg-primary/50') : 'bg-base-300',
          )}
        />
      ))}
    </div>
  );
}

function Transport({ isOpen }: { isOpen: boolean }) {
  const playing = liveStore((s) => s.transport.playing);
  const seconds = liveStore((s) => Math.floor(s.transport.time * 10 + 1e-6) / 10);
  const own = useShow((show) => show.tempo.bpm);
  // A cue or a recorded move may have set another.
  const bpm = liveStore((s) => s.bpm) ?? own;
  const setBpm = (value: number): void => {
    const held = Math.min(400, Math.max(10, value));
    editShow((show) => void (show.tempo.bpm = held), 'tempo');
    // Also where the show has that tempo already, and a cue another.
    perform({ type: 'tempo', bpm: held });
  };
  return (
    <div
      className={clsx('flex items-center gap-1 transition-opacity', !isOpen && 'opacity-40')}
      role="group"
      aria-label="Transport"
      // Before the show is there, nothing would be played, and a tempo would not be kept.
      inert={!isOpen}
    >
      <CommandButton id="transport.start" icon={SkipBack} />
      <CommandButton
        id="transport.play"
        icon={playing ? Pause : Play}
        label={playing ? 'Pause' : 'Play'}
        className={playing ? '' : 'text-primary'}
      />
      <CommandButton id="transport.step" icon={StepForward} />
      <output
        className="live figures h-5 w-16 text-right leading-5 contain-strict max-xl:w-13"
        aria-label="Time"
        data-testid="time"
      >
        {seconds.toFixed(1)}&thinsp;s
      </output>
      <span className="mx-1 h-4 border-l edge max-xl:hidden" />
      <ScrubNumber
        label="Tempo"
        value={bpm}
        step={0.5}
        fine={0.05}
        digits={1}
        min={10}
        max={400}
        onChange={setBpm}
        onDone={endGesture}
        className="w-16"
      />
      <span className="quiet text-2xs max-2xl:hidden">bpm</span>
      <button
        type="button"
        className="tool"
        onPointerDown={() => runCommand('transport.tap')}
        onKeyDown={(e) => e.key === 'Enter' && runCommand('transport.tap')}
        title={titleOf(commandOf('transport.tap'))}
      >
        Tap
      </button>
      <BeatLamps />
    </div>
  );
}

/** At the corner of a view's name, where it takes no space from the bar. */
const lampPlace = 'absolute top-1.5 right-0 size-2 rounded-full';

/** Whether the program is being recorded. */
function RecordingLamp() {
  const isOn = recordingStore((s) => s.recording !== null);
  return isOn && <span role="img" aria-label="Recording" className={clsx(lampPlace, 'bg-error')} />;
}

/** Says that another machine performs, and this one follows. */
function SpareLamp() {
  const follows = machinesStore((s) => s.follows);
  const about = 'This machine follows another one: what is done here is done there.';
  return (
    follows && (
      <span
        role="img"
        data-testid="spare"
        title={about}
        aria-label={`Spare. ${about}`}
        className={clsx(lampPlace, 'bg-secondary')}
      />
    )
  );
}

/** Says that the server is away, and what that takes. */
function ServerLamp() {
  const isAway = inputStore((s) => s.server === false);
  const about =
    'The server of Pyrvel does not answer. Everything on this page goes on; OSC, pixel strings over the network and the export farm wait for it.';
  return (
    isAway && (
      <span
        role="status"
        data-testid="offline"
        title={about}
        aria-label={`Offline. ${about}`}
        className="flex items-center gap-1 rounded bg-warning/15 px-1.5 text-2xs font-semibold text-warning"
      >
        <ServerOff size={13} /> Offline
      </span>
    )
  );
}

function FrameMeter() {
  const stats = liveStore((s) => s.stats);
  const fps = useShow((show) => show.canvas.fps);
  const rate = stats?.framesPerSecond ?? 0;
  const share = Math.min(1, rate / fps);
  const tone = share > 0.9 ? 'bg-success' : share > 0.5 ? 'bg-warning' : 'bg-error';
  const about = stats
    ? `${rate} of ${fps} frames a second · ${stats.frameMs.toFixed(1)} ms a frame, ${stats.cpuMs.toFixed(1)} ms of it in the worker · ${stats.passes} passes · drawn at ${stats.width} x ${stats.height}`
    : 'Nothing drawn yet';
  return (
    <div className="live flex items-center gap-2" title={about} role="img" aria-label={about}>
      <div className="h-1.5 w-10 rounded-full bg-base-300 max-2xl:hidden">
        <div className={clsx('h-full rounded-full', tone)} style={{ width: `${share * 100}%` }} />
      </div>
      <span
        className="figures h-5 w-8 text-right leading-5 contain-strict"
        data-testid="fps"
        data-frames={stats?.frames}
      >
        {rate}
      </span>
      <span className="quiet text-2xs max-2xl:hidden">fps</span>
    </div>
  );
}

function StageButtons() {
  const blackout = liveStore((s) => s.blackout);
  const freeze = liveStore((s) => s.freeze);
  const theme = useSession((s) => s.theme);
  useEffect(() => {
    document.documentElement.dataset.theme = theme;
    localStorage.setItem('pyrvel.theme', theme);
  }, [theme]);
  return (
    <div className="flex items-center gap-1" role="group" aria-label="Stage">
      <CommandButton
        id="stage.blackout"
        icon={SunDim}
        isOn={blackout}
        className={clsx(blackout && 'bg-error text-error-content')}
        shows="wide"
      />
      <CommandButton
        id="stage.freeze"
        icon={Snowflake}
        isOn={freeze}
        className={clsx(freeze && 'bg-secondary text-secondary-content')}
        shows="wide"
      />
      <button
        type="button"
        className="btn btn-primary btn-sm px-3"
        data-testid="stage-button"
        title={titleOf(commandOf('stage.open'))}
        onClick={() => runCommand('stage.open')}
      >
        <MonitorUp size={15} /> Stage
      </button>
      <CommandButton
        id="view.theme"
        icon={theme === 'pyrvel-night' ? Sun : Moon}
        label={theme === 'pyrvel-night' ? 'Light theme' : 'Dark theme'}
      />
      <CommandButton id="view.commands" icon={Keyboard} />
    </div>
  );
}

/** The top bar and the view below it. */
export function Shell() {
  const isOpen = useIsOpen();
  const name = useShow((show) => show.name);
  const hasSteps = historySession((s) => s.isOpen);
  const hasHelp = helpSession((s) => s.isOpen);
  const { pathname } = useLocation();
  // Who comes for the first time is asked in Build; steps that are under way go with them everywhere.
  const isNew = firstSteps((s) => s.at !== null || (!s.isKnown && pathname === '/build'));
  useEffect(() => listenToCommandKeys(window, !isOpen), [isOpen]);
  return (
    <div className="flex h-full flex-col">
      <header
        className="top-bar panel flex h-11 shrink-0 items-center gap-2 border-b edge px-3 max-xl:gap-1 max-xl:px-2"
        onClick={dropFocus}
      >
        <img src="/mark.svg" alt="Pyrvel" className="h-6 w-6" />
        <NavLink
          to="/shows"
          className="max-w-32 min-w-14 truncate font-semibold max-xl:max-w-14 max-xl:min-w-8"
          title={isOpen ? name : undefined}
        >
          {isOpen && name}
        </NavLink>
        <nav className="flex h-full" aria-label="Views">
          {views.map(([to, label]) => (
            <NavLink
              key={to}
              to={to}
              onDragOver={(event) => {
                if (to === '/play' && event.dataTransfer.types.includes(controlDrag)) event.preventDefault();
              }}
              onDrop={(event) => {
                if (to !== '/play' || !event.dataTransfer.types.includes(controlDrag)) return;
                event.preventDefault();
                dropOnDesk(event.dataTransfer.getData(controlDrag));
              }}
              className={({ isActive }) =>
                clsx(
                  'relative flex items-center border-b-2 px-1.5 max-xl:px-[3px] max-xl:text-xs',
                  isActive ? 'border-primary font-semibold' : 'quiet border-transparent',
                )
              }
            >
              {label}
              {to === '/record' && <RecordingLamp />}
              {to === '/machines' && <SpareLamp />}
            </NavLink>
          ))}
        </nav>
        <span className="grow" />
        <Transport isOpen={isOpen} />
        <span className="h-4 border-l edge max-xl:hidden" />
        <ServerLamp />
        <FrameMeter />
        <span className="h-4 border-l edge max-xl:hidden" />
        <StageButtons />
      </header>
      <LearnBanner />
      <div className="relative min-h-0 grow">
        <Opened>
          <Outlet />
        </Opened>
        <Elsewhere />
        <Suspense fallback={null}>
          <CommandList />
        </Suspense>
        <Suspense fallback={null}>{hasSteps && <HistoryPanel />}</Suspense>
        <Suspense fallback={null}>{hasHelp && <HelpPanel />}</Suspense>
        <Suspense fallback={null}>{isNew && <FirstSteps />}</Suspense>
      </div>
    </div>
  );
}
