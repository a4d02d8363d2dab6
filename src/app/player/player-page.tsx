import { useEffect, useRef } from 'react';
import { createRoot } from 'react-dom/client';
import { engine } from '../engine/client';
import { windowSize } from '../engine/output-box';
import { playerName } from '../machines/link';
import { ToSpare } from '../machines/to-spare';
import { begin, enter, playerStore, showName, showsIn } from './player-session';
import { CodeForm } from '../remote/code-form';
import { stayAwake } from '../stage/stay-awake';
import '../styles.css';

/** The picture: one screen of the wall, or what is on air, as large as the window. */
function Picture({ screen }: { screen: string | null }) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = box.current!;
    const client = engine();
    const id = client.outputs.add({
      source: screen === null ? { type: 'program' } : { type: 'screen', id: screen },
      use: 'stage',
      box: () => element,
      size: windowSize,
    });
    const stop = client.on('output-painted', (painted) => {
      if (painted.id === id && playerStore.getState().hasShow) playerStore.setState({ hasPicture: true });
    });
    const resize = (): void => {
      const { width, height } = windowSize();
      client.outputs.resize(id, width, height);
    };
    addEventListener('resize', resize);
    showsIn(element);
    return () => {
      showsIn(null);
      stop();
      removeEventListener('resize', resize);
      client.outputs.remove(id);
    };
  }, [screen]);
  return <div ref={box} className="absolute inset-0 overflow-hidden bg-black" />;
}

/** What a player says of itself: as it comes, when it is asked for its name, and while it has nothing to show. */
function Words() {
  const { isNamed, hasShow, hasPicture, hasMain, phase, screen, spare } = playerStore();
  if (!isNamed && hasPicture) return null;
  const waits =
    phase === 'alone'
      ? 'No link to the main machine. It is tried again all the time.'
      : !hasMain
        ? 'No window performs on the main machine yet.'
        : hasPicture
          ? screen
            ? ''
            : 'Shows what is on air. Give it a screen in Machines, on the main machine.'
          : hasShow
            ? 'Comes to where the show is …'
            : 'The show is on its way …';
  return (
    <div
      className="absolute bottom-[8%] left-1/2 -translate-x-1/2 rounded-lg bg-black/75 px-8 py-5 text-center text-white"
      role="status"
    >
      <p className="text-5xl font-semibold text-primary" data-testid="player-name">
        {playerName()}
      </p>
      {waits && <p className="mt-2 text-lg">{waits}</p>}
      {phase === 'alone' && (
        <div className="mt-3 flex justify-center gap-3">
          <ToSpare addresses={spare} as="player" />
        </div>
      )}
    </div>
  );
}

function Player() {
  const phase = playerStore((s) => s.phase);
  const screen = playerStore((s) => s.screen);
  const hasShow = playerStore((s) => s.hasShow);
  const fault = playerStore((s) => s.fault);
  return (
    <div
      className="relative h-full bg-black"
      onClick={showName}
      onDoubleClick={() => void document.documentElement.requestFullscreen()}
    >
      <Picture screen={screen} />
      {phase === 'code' ? (
        <div className={hasShow ? 'absolute right-0 bottom-0 bg-base-100/90' : 'relative h-full bg-base-100'}>
          <CodeForm title="Player" name={null} fault={fault} enter={(_name, code) => enter(code)} />
        </div>
      ) : (
        <Words />
      )}
    </div>
  );
}

document.documentElement.dataset.theme = 'pyrvel-night';
stayAwake();
begin();
createRoot(document.getElementById('root')!).render(<Player />);
