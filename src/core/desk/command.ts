import type { DeskValue, Layer, Transition } from '../document/types';

/** What a performer does. The engine carries it out and reports the new `PerformanceState`. */
export type PerformanceCommand =
  | { type: 'play'; playing: boolean }
  /** Pauses and goes on by one frame. */
  | { type: 'step' }
  /** Goes to a time in seconds. `exactly`: memories are rerun up to it; else, while dragging, they stay as they are. */
  | { type: 'seek'; time: number; exactly: boolean }
  /** Seconds from the start between which time goes round; null: it goes on forever. */
  | { type: 'range'; range: readonly [number, number] | null }
  /** Brings a scene on air over so many seconds, from when the transition of the show begins. */
  | { type: 'take'; scene: string; seconds: number }
  /** Brings the next scene on air and leaves none as next. */
  | { type: 'take-next'; seconds: number }
  | { type: 'next'; scene: string | null }
  /** Moves the crossfader to a place, 0..1, or on from where it is: the next scene comes as far as that. */
  | { type: 'crossfade'; to: number }
  | { type: 'crossfade-by'; by: number }
  /** Absent `on`: the other way round. */
  | { type: 'blackout'; on?: boolean }
  | { type: 'freeze'; on?: boolean }
  /** A hand moves a desk control. */
  | { type: 'desk'; control: string; value: DeskValue }
  /** A bound source stands at a share of its way, 0..1, or was turned by one. `pickup`: see `Takeover`. */
  | { type: 'turn'; control: string; from: number; share: number; source: string; pickup: boolean }
  | { type: 'turn-by'; control: string; from: number; by: number }
  /** A pad goes down or up. */
  | { type: 'press'; control: string; down: boolean }
  /** A switch goes to its other end. */
  | { type: 'flip'; control: string }
  /** null: all controls of the desk. */
  | { type: 'desk-home'; control: string | null }
  | { type: 'desk-undo' }
  /** `start`: when it begins; absent: at once. */
  | { type: 'recall'; snapshot: string; seconds: number; start?: Transition['start'] }
  /** Puts the controls of a page between the snapshots at its corners: x and y, 0..1. */
  | { type: 'morph'; page: string; at: readonly [number, number] }
  | { type: 'cue'; do: 'go' | 'leave' | 'back' | 'hold' | 'resume' }
  | { type: 'cue-jump'; cue: string }
  | { type: 'master'; master: 'speed' | 'motion'; value: number }
  | { type: 'layer'; layer: Layer | null }
  | { type: 'hit'; hit: Hit; on: boolean }
  /** Home: the picture of the show that is safe, at once. */
  | { type: 'panic' }
  | { type: 'tempo'; bpm: number }
  | { type: 'record'; on: boolean }
  | { type: 'replay'; on: boolean };

/** What a momentary pad does to the picture. */
export type Hit = 'strobe' | 'invert' | 'flash';
