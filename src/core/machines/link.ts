import type { PerformanceCommand } from '../desk/command';
import type { PerformanceState } from '../desk/performance-state';
import type { ControllerState } from '../inputs/inputs';
import type { ClockState } from './clock';
import type { DeskRole, PassRole } from './roles';

/**
 * What machines of a show say to each other over Socket.IO, by way of the server on the main machine. Shows and files go
 * by HTTP. Raised with each change that an older machine could not follow.
 */
export const linkVersion = 2;

/** Where the link and the other addresses of machines are on the server. */
export const linkPath = '/machines/link';

/**
 * What a machine is for: the main one performs, a remote desk has hands on it, a player shows an output of the wall. The spare is the server of another main
 * machine, which follows in everything and takes over when this one is gone.
 */
type MachineRole = 'main' | 'remote' | 'player' | 'spare';

/** What a machine says of itself as it comes. `token`: what it was given for a code; the main machine needs none. */
export interface Handshake {
  version: number;
  role: MachineRole;
  /** Kept by its browser, so that it is known again after a reload. */
  machine: string;
  name: string;
  token: string;
}

/** Ids by which machines are known to each other. */
export const machineIdPattern = /^[\w-]{8,64}$/;

/** Whether something is such an id. */
export const isMachineId = (value: unknown): value is string =>
  typeof value === 'string' && machineIdPattern.test(value);

/** What a machine says of itself every few seconds. */
export interface MachineReport {
  clock: ClockState | null;
  /** Rounds of the clock that were asked for, and those that were not answered in time, of the last minute. */
  asked: number;
  lost: number;
  /** Frames a second that its engine draws; null: it draws none. */
  framesPerSecond: number | null;
  /** What a player lacks, in a sentence; empty: nothing. */
  lacks: string;
  /** Where somebody is in it who may edit: a view, and the scene that is open; empty: nobody can be anywhere. */
  where: string;
}

/** A machine as all others see it. */
export interface MachineCard extends MachineReport {
  machine: string;
  name: string;
  role: MachineRole;
  /** What a remote desk may do; null: it is none. */
  desk: DeskRole | null;
  address: string;
  /** Milliseconds of the server's clock since which it is there. */
  since: number;
}

/** What changed of a performance: only parts that are other than before. */
export type StateNews = Partial<PerformanceState>;

/** Who needs what of the main machine. */
export interface Audience {
  remotes: number;
  players: number;
}

/** Where a machine that performs, or may come to it, is found. */
export interface Place {
  /** At most eight; the first that answers is taken. */
  addresses: string[];
  /** Its certificate (PEM), the only one that is trusted there. */
  certificate: string;
}

const mostAddresses = 8;
const mostLetters = 8000;

/** Whether something that came over the network is a place. */
export function isPlace(value: unknown): value is Place {
  const { addresses, certificate } = (value ?? {}) as Partial<Place>;
  return (
    Array.isArray(addresses) &&
    addresses.length > 0 &&
    addresses.length <= mostAddresses &&
    addresses.every((one) => typeof one === 'string' && /^https:\/\/[^/\s]{1,200}$/.test(one)) &&
    isShort(certificate)
  );
}

const isShort = (value: unknown): value is string => typeof value === 'string' && value.length <= mostLetters;

/** Where the spare that has taken over is found, and the pass by which the machine that was the main one follows it. */
export interface Successor extends Place {
  token: string;
  machine: string;
}

/** Whether something that came over the network is a successor. */
export const isSuccessor = (value: unknown): value is Successor =>
  isPlace(value) && isShort((value as Successor).token) && isShort((value as Successor).machine);

/** How a main machine follows another one as its spare. */
export interface Following {
  address: string;
  /** `leading`: it has taken over, and waits for the other one to come back. */
  phase: 'joining' | 'following' | 'leading';
}

/** The performance as a remote desk is told of it: all at first, then what changed. */
export interface ToServer {
  /** Answers by the clock of the server, in milliseconds. */
  clock(answer: (server: number) => void): void;
  report(report: MachineReport): void;
  /** From a remote desk; the answer is empty, or why it was not done. */
  perform(command: PerformanceCommand, answer: (fault: string) => void): void;
  /** The following come from the main machine. */
  state(news: StateNews, isWhole: boolean): void;
  /** All of the document of the show, or what was written to it since. */
  show(update: Uint8Array, isWhole: boolean): void;
  picture(jpeg: Uint8Array): void;
  /** From a player or the spare, now and then: a small picture of what it shows. */
  shown(jpeg: Uint8Array): void;
  /** What hands and devices do there, for players. */
  inputs(inputs: ControllerState): void;
  /** What a device there was heard of, packed (`core/audio/heard`); what is lost is not sent again. */
  sound(packed: Uint8Array): void;
  /** Gives a player a screen of the wall; null: none. */
  give(machine: string, screen: string | null): void;
  identify(machine: string): void;
  restart(machine: string): void;
  /** Ends a machine: it has to be let in again. */
  dismiss(machine: string): void;
  /** What was done to the show on a machine that follows: an update of its document, in parts, as messages have a largest size. */
  edit(part: Uint8Array, isLast: boolean): void;
  /** From the main machine: an edit of the spare was not taken, and why. */
  refuse(sentence: string): void;
  /** From the window of a machine that follows: it is to perform from now on. */
  lead(): void;
  /** From the spare: where it is found, should this machine be started again after it has taken over. */
  heir(successor: Successor): void;
  /** From the spare: it performs now. */
  taken(successor: Successor, answer: () => void): void;
}

export interface FromServer {
  /** `server`: which one it is that answers, as another may come to stand in for it. */
  welcome(you: { role: MachineRole; desk: DeskRole | null; server: string }): void;
  /** Why it may not come in, or not stay. */
  farewell(sentence: string): void;
  /** To the main machine: what was done elsewhere, in order. */
  perform(commands: PerformanceCommand[]): void;
  state(news: StateNews, isWhole: boolean): void;
  show(update: Uint8Array, isWhole: boolean): void;
  picture(jpeg: Uint8Array): void;
  /** To the main machine: what another one shows. */
  shown(machine: string, jpeg: Uint8Array): void;
  inputs(inputs: ControllerState): void;
  sound(packed: Uint8Array): void;
  /** The screen of the wall that a player shows; null: none yet. */
  given(screen: string | null): void;
  /** Shows its name for a while. */
  identify(): void;
  /** Has its engine replaced. */
  restart(): void;
  /** Who is at this server; and at the one that this machine follows. */
  machines(cards: MachineCard[], elsewhere: MachineCard[]): void;
  audience(audience: Audience): void;
  /** Whether the main machine is there; to the spare, whether it performs itself. `run`: which of its windows, so that one that was opened anew is told apart. */
  main(isThere: boolean, run: string): void;
  /** To the spare, several times a second: the server of the main machine is there. */
  pulse(): void;
  /** To the main machine: what was done to the show on the spare. */
  edit(update: Uint8Array): void;
  /** To the spare: an edit was not taken, and why; the whole show comes next. */
  refused(sentence: string): void;
  /** To the spare: the screen of the wall that each player was given. */
  gives(given: Readonly<Record<string, string | null>>): void;
  /** To remote desks and players: addresses of the spare, should this machine be gone; none: there is no spare. */
  spare(addresses: readonly string[]): void;
  /** To a window of the main machine: whom it follows, by the id of that machine; null: it performs. */
  follows(main: string | null): void;
}

/** What the main machine is told of its network. */
export interface NetworkState {
  isOpen: boolean;
  /** Addresses at which others reach it. */
  addresses: string[];
  /** Why it could not be opened; empty: nothing is wrong. */
  fault: string;
  /** The code for each role, while it is open. */
  codes: Readonly<Record<PassRole, string>> | null;
  /** Whom this machine follows as the spare; null: nobody. */
  following: Following | null;
}
