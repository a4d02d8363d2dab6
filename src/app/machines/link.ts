import { io, type Socket } from 'socket.io-client';
import { ownClock } from '../../core/own-clock';
import type { ClockMeter } from '../../core/machines/clock';
import { ClockRounds } from '../../core/machines/clock-rounds';
import {
  isMachineId,
  linkPath,
  linkVersion,
  type FromServer,
  type Handshake,
  type MachineReport,
  type ToServer,
} from '../../core/machines/link';

export type Link = Socket<FromServer, ToServer>;

/** Milliseconds between two reports of this machine. */
const reportMs = 1000;

/** What a player is called: as its address says, `/player?name=Left`. */
export const playerName = (): string =>
  new URLSearchParams(location.search).get('name')?.slice(0, 40) || 'Player';

/** Where it is kept. Each window of a player is one of its own, as each shows another output. */
const idKey = (role: Handshake['role']): string =>
  role === 'player' ? `pyrvel.machine.player.${playerName()}` : 'pyrvel.machine';

/** By what this browser is known to the others; it keeps it. */
export function machineId(role: Handshake['role']): string {
  const kept = localStorage.getItem(idKey(role));
  if (isMachineId(kept)) return kept;
  // A page that came without TLS has no randomUUID.
  const made = [...crypto.getRandomValues(new Uint8Array(12))]
    .map((byte) => byte.toString(16).padStart(2, '0'))
    .join('');
  setMachineId(role, made);
  return made;
}

export const setMachineId = (role: Handshake['role'], id: string): void =>
  localStorage.setItem(idKey(role), id);

/** Opens the link to the other machines, by the server of this page; it comes back by itself. `about`: what is drawn here, and what is lacking. */
export function openLink(
  hello: Pick<Handshake, 'role' | 'name' | 'token'>,
  about: () => Pick<MachineReport, 'framesPerSecond' | 'lacks' | 'where'>,
): { link: Link; clock: ClockMeter; close(): void } {
  const link: Link = io({
    path: linkPath,
    transports: ['websocket'],
    reconnectionDelay: 200,
    reconnectionDelayMax: 2000,
    auth: { ...hello, version: linkVersion, machine: machineId(hello.role) } satisfies Handshake,
  });
  const rounds = new ClockRounds((answer) => void link.volatile.emit('clock', answer), {
    now: ownClock,
    later: (run, ms) => {
      const timer = setTimeout(run, ms);
      return () => clearTimeout(timer);
    },
  });
  const { clock } = rounds;
  let server = '';
  link.on('welcome', (you) => {
    // By a relay, the spare may stand in for the main machine.
    if (server && you.server !== server) clock.startOver();
    server = you.server;
  });
  link.on('connect', () => rounds.begin());
  link.on('disconnect', () => rounds.end());
  const reporting = setInterval(() => {
    if (!link.connected) return;
    const report: MachineReport = {
      clock: clock.state,
      ...rounds.counts,
      ...about(),
    };
    link.volatile.emit('report', report);
  }, reportMs);
  const close = (): void => {
    rounds.end();
    clearInterval(reporting);
    link.disconnect();
  };
  return { link, clock, close };
}
