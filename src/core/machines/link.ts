import type { PerformanceCommand } from '../desk/command';
import type { PerformanceState } from '../desk/performance-state';
import type { ControllerState } from '../inputs/inputs';
import type { ClockState } from './clock';
import type { DeskRole, PassRole } from './roles';

/**
 * What machines of a show say to each other over Socket.IO, by way of the server on the main machine. Shows and files go
 * by HTTP. Raised with each change that an older machine could not follow.
 */
export const linkVersion = 1;

/** Where the link and the other addresses of machines are on the server. */
export const linkPath = '/machines/link';

/** What a machine is for: the main one performs, a remote desk has hands on it, a player shows an output of the wall. */
type MachineRole = 'main' | 'remote' | 'player';

/** What a machine says of itself as it comes. `token`: what it was given for a code; the main machine needs none. */
export interface Handshake {
  version: number;
  role: MachineRole;
  /** Kept by its browser, so that it is known again after a reload. */
  machine: string;
  name: string;
  token: string;
}

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
  /** What hands and devices do there, for players. */
  inputs(inputs: ControllerState): void;
  /** Gives a player a screen of the wall; null: none. */
  give(machine: string, screen: string | null): void;
  identify(machine: string): void;
  restart(machine: string): void;
  /** Ends a machine: it has to be let in again. */
  dismiss(machine: string): void;
}

export interface FromServer {
  welcome(you: { role: MachineRole; desk: DeskRole | null }): void;
  /** Why it may not come in, or not stay. */
  farewell(sentence: string): void;
  perform(command: PerformanceCommand): void;
  state(news: StateNews, isWhole: boolean): void;
  show(update: Uint8Array, isWhole: boolean): void;
  picture(jpeg: Uint8Array): void;
  inputs(inputs: ControllerState): void;
  /** The screen of the wall that a player shows; null: none yet. */
  given(screen: string | null): void;
  /** Shows its name for a while. */
  identify(): void;
  /** Has its engine replaced. */
  restart(): void;
  machines(cards: MachineCard[]): void;
  audience(audience: Audience): void;
  /** Whether the main machine is there. */
  main(isThere: boolean): void;
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
}
