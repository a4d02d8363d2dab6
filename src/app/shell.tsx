import clsx from 'clsx';
import { MonitorUp, Moon, Pause, Play, SkipBack, Snowflake, StepForward, Sun, SunDim } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { NavLink, Outlet } from 'react-router';
import { tempoFromTaps } from '../core/time/clock';
import { editShow, endGesture, redo, undo, useShow } from './data/show-store';
import { sessionStore, useSession } from './data/session';
import { engine } from './engine/client';
import { isTyping } from './inputs/keys-pointer';
import { LearnBanner } from './inputs/learn-banner';
import { liveStore } from './engine/live';
import { ScrubNumber } from './parts/scrub-number';
import { Elsewhere } from './parts/elsewhere';
import { dropFocus } from './parts/live-button';
import { listenToPanicKeys, panicKeys } from './stage/panic-keys';
import { openStage } from './stage/windows';

const views = [
  ['/build', 'Build'],
  ['/play', 'Play'],
  ['/inputs', 'Inputs'],
  ['/shows', 'Shows'],
] as const;

function BeatLamps() {
  const beats = useShow((show) => show.tempo.beatsPerBar);
  const beat = liveStore((s) => Math.floor(s.transport.beat));
  const playing = liveStore((s) => s.transport.playing);
  const at = ((beat % beats) + beats) % beats;
  return (
    <div className="flex gap-1" role="img" aria-label={`Beat ${at + 1} of ${beats}`}>
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

function Transport() {
  const playing = liveStore((s) => s.transport.playing);
  const seconds = liveStore((s) => Math.floor(s.transport.time * 10 + 1e-6) / 10);
  const bpm = useShow((show) => show.tempo.bpm);
  const taps = useRef<number[]>([]);
  const setBpm = (value: number): void => {
    editShow((show) => void (show.tempo.bpm = Math.min(400, Math.max(10, value))), 'tempo');
  };
  const tap = (): void => {
    taps.current = [...taps.current.slice(-8), performance.now() / 1000];
    const tempo = tempoFromTaps(taps.current);
    if (tempo !== null) setBpm(Math.round(tempo * 10) / 10);
  };
  const client = engine();
  return (
    <div className="flex items-center gap-1" role="group" aria-label="Transport">
      <button
        type="button"
        className="tool"
        title="Back to start"
        aria-label="Back to start"
        onClick={() => client.command({ type: 'seek', time: 0, exactly: true })}
      >
        <SkipBack size={15} />
      </button>
      <button
        type="button"
        className="tool"
        title="Play or pause (Ctrl+Enter)"
        aria-label={playing ? 'Pause' : 'Play'}
        onClick={() => client.command({ type: 'transport', playing: !playing })}
      >
        {playing ? <Pause size={15} /> : <Play size={15} className="text-primary" />}
      </button>
      <button
        type="button"
        className="tool"
        title="One frame on (Ctrl+.)"
        aria-label="Step a frame"
        onClick={() => client.command({ type: 'step' })}
      >
        <StepForward size={15} />
      </button>
      <output className="figures w-16 text-right" aria-label="Time" data-testid="time">
        {seconds.toFixed(1)}&thinsp;s
      </output>
      <span className="mx-1 h-4 border-l edge max-xl:mx-0" />
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
      <span className="quiet text-2xs max-xl:hidden">bpm</span>
      <button
        type="button"
        className="tool"
        onPointerDown={tap}
        onKeyDown={(e) => e.key === 'Enter' && tap()}
        title="Tap the beat"
      >
        Tap
      </button>
      <BeatLamps />
    </div>
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
    <div className="flex items-center gap-2" title={about} role="img" aria-label={about}>
      <div className="h-1.5 w-14 rounded-full bg-base-300 max-xl:hidden">
        <div className={clsx('h-full rounded-full', tone)} style={{ width: `${share * 100}%` }} />
      </div>
      <span className="figures w-8 text-right" data-testid="fps">
        {rate}
      </span>
      <span className="quiet text-2xs max-xl:hidden">fps</span>
    </div>
  );
}

function StageButtons() {
  const { blackout, freeze, theme } = useSession();
  useEffect(() => engine().state({ type: 'stage', blackout, freeze }), [blackout, freeze]);
  useEffect(() => {
    document.documentElement.dataset.theme = theme;
    localStorage.setItem('pyrvel.theme', theme);
  }, [theme]);
  return (
    <div className="flex items-center gap-1" role="group" aria-label="Stage">
      <button
        type="button"
        className={clsx('tool', blackout && 'bg-error text-error-content')}
        aria-pressed={blackout}
        aria-label="Blackout"
        title={`Black on all stage windows (${panicKeys.blackout})`}
        onClick={() => sessionStore.setState({ blackout: !blackout })}
      >
        <SunDim size={15} /> <span className="max-xl:hidden">Blackout</span>
      </button>
      <button
        type="button"
        className={clsx('tool', freeze && 'bg-secondary text-secondary-content')}
        aria-pressed={freeze}
        aria-label="Freeze"
        title={`Hold the picture on all stage windows (${panicKeys.freeze})`}
        onClick={() => sessionStore.setState({ freeze: !freeze })}
      >
        <Snowflake size={15} /> <span className="max-xl:hidden">Freeze</span>
      </button>
      <button
        type="button"
        className="btn btn-primary btn-sm px-3"
        onClick={openStage}
        title="Open a clean window for the stage; F there fills the screen"
      >
        <MonitorUp size={15} /> Stage
      </button>
      <button
        type="button"
        className="tool"
        aria-label={theme === 'pyrvel-night' ? 'Light theme' : 'Dark theme'}
        title={theme === 'pyrvel-night' ? 'Light theme' : 'Dark theme'}
        onClick={() =>
          sessionStore.setState({ theme: theme === 'pyrvel-night' ? 'pyrvel-day' : 'pyrvel-night' })
        }
      >
        {theme === 'pyrvel-night' ? <Sun size={15} /> : <Moon size={15} />}
      </button>
    </div>
  );
}

/** Keys that work in every view. */
function shellKeys(event: KeyboardEvent): void {
  if (isTyping(event) || !(event.ctrlKey || event.metaKey)) return;
  if (event.key === 'z' || event.key === 'Z') {
    event.preventDefault();
    if (event.shiftKey) redo();
    else undo();
  } else if (event.key === 'y') {
    event.preventDefault();
    redo();
  } else if (event.key === 'Enter') {
    engine().command({ type: 'transport', playing: !liveStore.getState().transport.playing });
  } else if (event.key === '.') engine().command({ type: 'step' });
}

/** The top bar and the view below it. */
export function Shell() {
  const name = useShow((show) => show.name);
  useEffect(() => {
    window.addEventListener('keydown', shellKeys);
    const stop = listenToPanicKeys(window);
    return () => {
      window.removeEventListener('keydown', shellKeys);
      stop();
    };
  }, []);
  return (
    <div className="flex h-full flex-col">
      <header
        className="panel flex h-11 shrink-0 items-center gap-3 border-b edge px-3 max-xl:gap-1.5 max-xl:px-2"
        onClick={dropFocus}
      >
        <img src="/mark.svg" alt="Pyrvel" className="h-6 w-6" />
        <NavLink to="/shows" className="max-w-36 truncate font-semibold max-xl:max-w-24" title={name}>
          {name}
        </NavLink>
        <nav className="flex h-full" aria-label="Views">
          {views.map(([to, label]) => (
            <NavLink
              key={to}
              to={to}
              className={({ isActive }) =>
                clsx(
                  'flex items-center border-b-2 px-2.5 max-xl:px-1.5',
                  isActive ? 'border-primary font-semibold' : 'quiet border-transparent',
                )
              }
            >
              {label}
            </NavLink>
          ))}
        </nav>
        <span className="grow" />
        <Transport />
        <span className="h-4 border-l edge" />
        <FrameMeter />
        <span className="h-4 border-l edge" />
        <StageButtons />
      </header>
      <LearnBanner />
      <div className="relative min-h-0 grow">
        <Outlet />
        <Elsewhere />
      </div>
    </div>
  );
}
