import type { PerformanceCommand } from '../desk/command';

/** What a remote desk may do: look at the show, play its desk and cues, or all of the performance. */
const deskRoles = ['look', 'desk', 'all'] as const;
export type DeskRole = (typeof deskRoles)[number];

/** What a code lets a machine in for: as a remote desk, or as a player, which shows what it is told and does nothing. */
export const passRoles = [...deskRoles, 'player'] as const;
export type PassRole = (typeof passRoles)[number];

export const isPassRole = (value: unknown): value is PassRole => passRoles.includes(value as PassRole);

/** The least role that may give each command. */
const least: Readonly<Record<PerformanceCommand['type'], DeskRole>> = {
  desk: 'desk',
  turn: 'desk',
  'turn-by': 'desk',
  press: 'desk',
  flip: 'desk',
  'desk-home': 'desk',
  recall: 'desk',
  morph: 'desk',
  cue: 'desk',
  'cue-jump': 'desk',
  // Who plays the desk can always bring the picture that is safe.
  panic: 'desk',
  'desk-undo': 'all',
  play: 'all',
  step: 'all',
  seek: 'all',
  range: 'all',
  take: 'all',
  'take-next': 'all',
  next: 'all',
  crossfade: 'all',
  'crossfade-by': 'all',
  blackout: 'all',
  freeze: 'all',
  master: 'all',
  layer: 'all',
  hit: 'all',
  tempo: 'all',
  record: 'all',
  replay: 'all',
};

/** Whether a role may give a command. */
export const mayPerform = (role: DeskRole, type: PerformanceCommand['type']): boolean =>
  deskRoles.indexOf(role) >= deskRoles.indexOf(least[type]);
