import type { PerformanceCommand } from '../desk/command';

/** What a remote desk may do: look at the show, play its desk and cues, or all of the performance. */
const deskRoles = ['look', 'desk', 'all'] as const;
export type DeskRole = (typeof deskRoles)[number];

/**
 * What a code lets a machine in for: as a remote desk; as a player, which shows what it is told and does nothing; or as the spare, another main machine,
 * which may do all that the main one may.
 */
export const passRoles = [...deskRoles, 'player', 'spare'] as const;
export type PassRole = (typeof passRoles)[number];

/** What a machine comes as with a code for a role. */
export const comesAs = (role: PassRole): 'remote' | 'player' | 'spare' =>
  role === 'player' || role === 'spare' ? role : 'remote';

/** What a remote desk of a role may do; null: it is none. The spare may perform in all ways. */
export const deskOf = (role: PassRole): DeskRole | null =>
  role === 'player' ? null : role === 'spare' ? 'all' : role;

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
