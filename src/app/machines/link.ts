import { io, type Socket } from 'socket.io-client';
import { ClockMeter } from '../../core/machines/clock';
import {
  linkPath,
  linkVersion,
  type FromServer,
  type Handshake,
  type MachineReport,
  type ToServer,
} from '../../core/machines/link';

export type Link = Socket<FromServer, ToServer>;

/** Rounds of the clock that are asked for quickly at first, then now and then; milliseconds between them. */
const quickRounds = 8;
const everyMs = { quick: 60, calm: 1000 };
/** Milliseconds after which a round counts as lost. */
const lostMs = 2000;
/** Rounds that a report of losses speaks of. */
const countedRounds = 60;
const reportMs = 1000;

/** Milliseconds of this machine's clock, which is not set back while the page lives. */
const ownMilliseconds = (): number => performance.timeOrigin + performance.now();

/** What a player is called: as its address says, `/player?name=Left`. */
export const playerName = (): string =>
  new URLSearchParams(location.search).get('name')?.slice(0, 40) || 'Player';

/** By what this browser is known to the others; it keeps it. */
export function machineId(role: Handshake['role']): string {
  // Each window of a player is one of its own, as each shows another output.
  const key = role === 'player' ? `pyrvel.machine.player.${playerName()}` : 'pyrvel.machine';
  const kept = localStorage.getItem(key);
  if (kept && /^[\w-]{8,64}$/.test(kept)) return kept;
  // A page that came without TLS has no randomUUID.
  const made = [...crypto.getRandomValues(new Uint8Array(12))]
    .map((byte) => byte.toString(16).padStart(2, '0'))
    .join('');
  localStorage.setItem(key, made);
  return made;
}

/** Opens the link to the other machines, by the server of this page; it comes back by itself. `about`: what is drawn here, and what is lacking. */
export function openLink(
  hello: Pick<Handshake, 'role' | 'name' | 'token'>,
  about: () => Pick<MachineReport, 'framesPerSecond' | 'lacks'>,
): { link: Link; clock: ClockMeter; close(): void } {
  const link: Link = io({
    path: linkPath,
    transports: ['websocket'],
    reconnectionDelay: 200,
    reconnectionDelayMax: 2000,
    auth: { ...hello, version: linkVersion, machine: machineId(hello.role) } satisfies Handshake,
  });
  const clock = new ClockMeter();
  /** Whether each of the last rounds came back. */
  const rounds: boolean[] = [];
  let asked = 0;
  let timer = 0;
  const note = (came: boolean): void => {
    rounds.push(came);
    if (rounds.length > countedRounds) rounds.shift();
  };
  const round = (): void => {
    const sent = ownMilliseconds();
    let isOpen = true;
    const lost = setTimeout(() => {
      isOpen = false;
      note(false);
    }, lostMs);
    link.volatile.emit('clock', (server) => {
      if (!isOpen) return;
      isOpen = false;
      clearTimeout(lost);
      note(true);
      clock.add({ sent, received: ownMilliseconds(), server });
    });
    timer = window.setTimeout(round, ++asked < quickRounds ? everyMs.quick : everyMs.calm);
  };
  link.on('connect', () => {
    clearTimeout(timer);
    asked = 0;
    round();
  });
  link.on('disconnect', () => clearTimeout(timer));
  const reporting = setInterval(() => {
    if (!link.connected) return;
    const report: MachineReport = {
      clock: clock.state,
      asked: rounds.length,
      lost: rounds.filter((came) => !came).length,
      ...about(),
    };
    link.volatile.emit('report', report);
  }, reportMs);
  const close = (): void => {
    clearTimeout(timer);
    clearInterval(reporting);
    link.disconnect();
  };
  return { link, clock, close };
}
