import { AppWindow, LogOut, RotateCcw, Tag } from 'lucide-react';
import { ownClock } from '../../core/own-clock';
import type { MachineCard } from '../../core/machines/link';
import { useShow } from '../data/show-store';
import { EngineCanvas } from '../engine/engine-canvas';
import { SelectField } from '../parts/field';
import { givenStore } from './given';
import { dismissMachine, giveScreen, identify, restartEngine } from './main-machine';
import { Invitation, roleWords } from './invitation';
import { machinesStore } from './machines-store';
import { Spare } from './spare';

const ms = (value: number): string => `${value.toFixed(Math.abs(value) < 10 ? 2 : 0)} ms`;

const kindWords = { main: 'Main', player: 'Player', spare: 'Spare' } as const;

/** What a machine is called by what it does. */
const kindOf = ({ role, desk }: MachineCard, follows: boolean): string =>
  // The window of this machine, which is the main one by itself.
  role === 'main' && follows
    ? kindWords.spare
    : role === 'remote'
      ? `Remote desk · ${desk ? roleWords[desk][0] : ''}`
      : kindWords[role];

const sinceText = (since: number): string => {
  const minutes = Math.floor((ownClock() - since) / 60000);
  return minutes < 1
    ? 'just now'
    : minutes < 60
      ? `${minutes} min`
      : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
};

/** A machine that loses or delays what it is told is named. */
function linkWord({ clock, asked, lost }: MachineCard): { word: string; tone: string } {
  if (!clock) return { word: 'new', tone: '' };
  const share = asked ? lost / asked : 0;
  if (share > 0.02 || clock.roundTrip > 150) return { word: 'poor', tone: 'text-error' };
  if (share > 0 || clock.roundTrip > 40 || clock.jitter > 10) return { word: 'fair', tone: 'text-warning' };
  return { word: 'good', tone: 'text-success' };
}

/** What a player shows: a screen of the wall, or what is on air. */
function Shows({ machine, name }: { machine: string; name: string }) {
  const outputs = useShow((show) => show.wall.outputs);
  const given = givenStore((s) => s.given[machine]) ?? null;
  const screens = outputs.filter(({ type }) => type !== 'string');
  return (
    <SelectField
      label={`What ${name} shows`}
      value={screens.some(({ id }) => id === given) ? given! : ''}
      options={[['', 'Program'], ...screens.map(({ id, name: screen }) => [id, screen] as const)]}
      onChange={(screen) => giveScreen(machine, screen || null)}
    />
  );
}

const program = { type: 'program' } as const;

/** `isHere`: it is at the server of this machine, where something can be done about it. */
function Row({ card, isHere }: { card: MachineCard; isHere: boolean }) {
  const follows = machinesStore((s) => s.follows) && isHere;
  const picture = machinesStore((s) => s.pictures[card.machine]);
  const kind = kindOf(card, follows);
  const { clock, asked, lost, framesPerSecond } = card;
  const { word, tone } = linkWord(card);
  return (
    <tr data-machine={card.name}>
      <td className="w-18">
        {card.role === 'main' && isHere && (
          <EngineCanvas
            source={program}
            label={`What ${card.name} shows now`}
            className="h-9 w-16 rounded-sm"
          />
        )}
        {picture && (
          <img
            src={picture}
            alt={`What ${card.name} shows now`}
            className="max-h-12 w-16 rounded-sm bg-black object-contain"
          />
        )}
      </td>
      <th scope="row" className="font-semibold">
        <span className="block max-w-48 truncate">
          {card.role === 'main' && follows ? 'This machine' : card.name}
        </span>
        <span className="figures quiet block text-2xs font-normal">{card.address}</span>
        {card.lacks && (
          <span className="block max-w-64 text-2xs font-normal text-warning" role="status">
            {card.lacks}
          </span>
        )}
      </th>
      <td>
        <span className="block" data-kind={kind}>
          {kind}
        </span>
        {card.where && <span className="quiet block max-w-48 truncate text-2xs">{card.where}</span>}
        {isHere && card.role === 'player' && <Shows machine={card.machine} name={card.name} />}
      </td>
      <td className={tone}>{word}</td>
      <td className="figures text-right whitespace-nowrap">{clock ? ms(clock.roundTrip) : '–'}</td>
      <td className="figures text-right whitespace-nowrap">
        {asked ? `${Math.round((100 * lost) / asked)} %` : '–'}
      </td>
      <td
        className="figures text-right whitespace-nowrap"
        title={clock ? `sure to ${ms(clock.jitter)}` : undefined}
      >
        {clock ? ms(clock.offset) : '–'}
      </td>
      <td className="figures text-right whitespace-nowrap">{clock ? ms(clock.jitter) : '–'}</td>
      <td className="figures text-right whitespace-nowrap">{framesPerSecond ?? '–'}</td>
      <td className="quiet whitespace-nowrap">{sinceText(card.since)}</td>
      <td className="whitespace-nowrap">
        {isHere && card.role === 'player' && (
          <>
            <button
              type="button"
              className="tool"
              aria-label={`Show the name of ${card.name}`}
              title="Shows its name on its output for a while"
              onClick={() => identify(card.machine)}
            >
              <Tag size={14} />
            </button>
            <button
              type="button"
              className="tool"
              aria-label={`Restart the engine of ${card.name}`}
              title="Replaces its engine by a fresh one; the last picture stays meanwhile"
              onClick={() => restartEngine(card.machine)}
            >
              <RotateCcw size={14} />
            </button>
          </>
        )}
        {isHere && card.role !== 'main' && (
          <button
            type="button"
            className="tool"
            aria-label={`Send ${card.name} away`}
            title="Sends it away; it has to type a code again"
            onClick={() => dismissMachine(card.machine)}
          >
            <LogOut size={14} />
          </button>
        )}
      </td>
    </tr>
  );
}

/** Opens a player in a window of this machine, by the first name that is free: in a process of its own, which costs the desk nothing. */
function openPlayer(cards: readonly MachineCard[]): void {
  let k = 1;
  while (cards.some(({ name }) => name === `Player ${k}`)) k++;
  window.open(
    `/player?name=${encodeURIComponent(`Player ${k}`)}`,
    '_blank',
    'noopener,popup,width=960,height=540',
  );
}

/** Machines: who is there beside this one, how well they hear each other, and how more of them come. */
export function MachinesView() {
  const { cards, elsewhere, link, follows } = machinesStore();
  return (
    <main className="flex h-full">
      <aside
        className="w-80 shrink-0 overflow-y-auto border-r edge bg-base-200 p-4"
        aria-label="How others come"
      >
        {follows && <Spare />}
        <Invitation />
        {!follows && <Spare />}
      </aside>
      <section className="min-w-0 grow overflow-auto p-4" aria-label="Machines">
        <div className="mb-2 flex items-center justify-between">
          <h2 className="font-semibold">Machines</h2>
          {link === 'main' && (
            <button
              type="button"
              className="tool h-8 border edge px-2"
              title="Opens a window on this machine that shows a screen of the wall, or the program, by an engine of its own"
              onClick={() => openPlayer(cards)}
            >
              <AppWindow size={14} /> Player window
            </button>
          )}
        </div>
        {link === 'refused' && (
          <p className="mb-2 rounded border-l-4 border-l-warning bg-base-300 px-2 py-1">
            Another window of this machine performs. Remote desks reach that one; this window takes over when
            it is closed.
          </p>
        )}
        {link === 'away' && (
          <p className="mb-2 rounded border-l-4 border-l-warning bg-base-300 px-2 py-1">
            The server of Pyrvel does not answer. This window goes on; other machines wait for it.
          </p>
        )}
        {cards.length > 0 && (
          <table className="w-full text-left [&_td]:px-1.5 [&_td]:py-2 [&_th]:px-1.5 [&_th]:py-2 [&_tr]:border-b [&_tr]:border-(--edge)">
            <thead className="quiet text-2xs">
              <tr>
                <td />
                {['Machine', 'Role', 'Link'].map((word) => (
                  <th key={word} scope="col" className="font-normal">
                    {word}
                  </th>
                ))}
                {['There and back', 'Lost', 'Clock', 'Sure to', 'fps'].map((word) => (
                  <th key={word} scope="col" className="text-right font-normal">
                    {word}
                  </th>
                ))}
                <th scope="col" className="font-normal">
                  Here for
                </th>
                <td />
              </tr>
            </thead>
            <tbody>
              {cards.map((card) => (
                <Row key={`${card.machine} ${card.since}`} card={card} isHere />
              ))}
              {elsewhere.map((card) => (
                <Row key={`there ${card.machine} ${card.since}`} card={card} isHere={false} />
              ))}
            </tbody>
          </table>
        )}
        {link === 'main' && cards.length < 2 && !follows && (
          <p className="quiet mt-6 max-w-prose">
            Nobody else is here. A phone or tablet with a remote desk shows the desk of the scene on air, the
            cues and a small picture of the program; what it does is done here. A player is another computer,
            or a window of this one, that shows a screen of the wall by its own engine, in step with this one.
          </p>
        )}
      </section>
    </main>
  );
}
