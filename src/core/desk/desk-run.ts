import type { DeskControl, DeskTarget, DeskValue, Show } from '../document/types';
import type { Catalogue } from '../kind/kind';
import { isAngle } from '../kind/controls';
import { hash } from '../random';
import { MotionRun } from '../run/motion-run';
import type { Moment } from '../time/clock';
import { mixValues, type MixWay } from './mix';
import {
  deskControls,
  heldNumber,
  heldValue,
  isWords,
  sameValue,
  storedValue,
  targetValue,
  targetSpec,
} from './value';

/** States of the desk that can be gone back to. */
const mostSteps = 200;
/** Seconds between two moves of one control that are one action of a hand. */
const sameActionSeconds = 0.8;

/** Values of desk controls, by id. */
export type DeskValues = Readonly<Record<string, DeskValue>>;

/** A value that the desk gives to a part of a node's control, or to a control that no numbers drive. */
export interface Given {
  node: string;
  part: string;
  value: number | string;
}

/** What the desk gives to one scene. */
interface SceneGiven {
  /** Rises with each change. */
  version: number;
  values: Map<string, Given>;
  /** The values, to be gone through any number of times. */
  list: Iterable<Given>;
}

/** A way from one value to another. */
interface Way {
  from: DeskValue;
  to: DeskValue;
  start: number;
  seconds: number;
}

/** One desk control while it is played. */
interface Played {
  control: DeskControl;
  /** Where the patches have it. */
  stored: DeskValue;
  mix: MixWay;
  /** Targets that are there, each with what it is known by in its scene. */
  targets: { target: DeskTarget; key: string }[];
  motions: MotionRun[];
  /** What its targets were last given. */
  given: DeskValue | null;
  /** Something has changed that its targets have to be told. */
  isNew: boolean;
}

/** One control on the way between states of the desk. */
interface MorphRow {
  id: string;
  played: Played;
  values: DeskValue[];
}

/** A full turn where a control turns something round: then the short way is the one to go. */
const periodOf = (isTurn: boolean): number => (isTurn ? 360 : 0);

/**
 * The desk while it is played: where each control stands, and what that gives to the nodes. A control that nobody moved stands where the
 * patches have it, and gives nothing. Time comes from outside; the same events at the same times give the same desk.
 */
export class DeskRun {
  /** Rises with each change of `values`. */
  version = 0;
  /** Controls that were moved. */
  private readonly current = new Map<string, DeskValue>();
  /** The same as a state that can be kept, made when it is asked for: many moves of one frame must not copy it each time. */
  private kept: { version: number; values: DeskValues } = { version: 0, values: {} };
  private played = new Map<string, Played>();
  private moving: string[] = [];
  private readonly ways = new Map<string, Way>();
  private readonly undoable: DeskValues[] = [];
  /** When each control was last moved by a hand, and when all were by a morph. */
  private readonly touched = new Map<string, number>();
  private readonly scenes = new Map<string, SceneGiven>();
  /** Controls whose targets have to be told. */
  private stale = new Set<string>();
  private show: Show | null = null;
  private morph: { states: readonly DeskValues[]; rows: readonly MorphRow[] } | null = null;
  private readonly numbers = new Float32Array(1);

  constructor(private readonly catalogue: Catalogue) {}

  /** Controls that were moved, and what they stand at. */
  get values(): DeskValues {
    if (this.kept.version !== this.version)
      this.kept = { version: this.version, values: Object.fromEntries(this.current) };
    return this.kept.values;
  }

  /** Begins with a show, at the values that another engine had. */
  open(show: Show, values: DeskValues = {}): void {
    this.show = null;
    this.current.clear();
    this.version++;
    this.played.clear();
    this.ways.clear();
    this.undoable.length = 0;
    this.touched.clear();
    this.scenes.clear();
    this.takeShow(show);
    const known = Object.entries(values).filter(([id]) => this.played.has(id));
    this.put(
      Object.fromEntries(known.map(([id, value]) => [id, heldValue(this.played.get(id)!.control, value)])),
    );
  }

  /**
   * Takes an edited show. A control of a patch that was edited by hand stands where the edit put it: who moved it last, wins.
   */
  takeShow(show: Show): void {
    const before = this.show;
    if (before?.desk === show.desk && before.scenes === show.scenes) return;
    this.show = show;
    const gone = new Set(this.played.keys());
    const edited: string[] = [];
    const old = this.played;
    this.morph = null;
    this.played = new Map();
    this.moving = [];
    for (const { control } of deskControls(show.desk)) {
      gone.delete(control.id);
      const known = old.get(control.id);
      const specs = control.targets.flatMap((target) => {
        const found = targetSpec(show, target, this.catalogue);
        return found ? [{ target, spec: found.spec }] : [];
      });
      const stored = storedValue(show, control, this.catalogue);
      const [range] = control.targets.map(({ to }) => Math.abs(to[1] - to[0]));
      const isTurn = specs.length > 0 && specs.every(({ spec }) => isAngle(spec)) && range >= 359;
      const played: Played = {
        control,
        stored,
        mix: { period: periodOf(isTurn) },
        targets: specs.map(({ target }) => ({ target, key: `${target.node} ${target.part}` })),
        motions: known?.motions ?? [],
        given: null,
        isNew: true,
      };
      if (known && known.control === control && !sameValue(known.stored, stored)) edited.push(control.id);
      this.played.set(control.id, played);
      if (control.motions.length) this.moving.push(control.id);
    }
    for (const id of [...gone, ...edited]) if (this.current.delete(id)) this.version++;
    for (const id of [...gone, ...edited]) this.ways.delete(id);
    // Targets may have come and gone: all is told again, and what nobody gives any more is taken back.
    for (const scene of this.scenes.values()) {
      scene.values.clear();
      scene.version++;
    }
    this.stale = new Set(this.played.keys());
  }

  private put(values: DeskValues): void {
    for (const id in values) this.putOne(id, values[id]);
  }

  private putOne(id: string, value: DeskValue): void {
    this.current.set(id, value);
    this.stale.add(id);
    this.version++;
  }

  /** Stands as another machine says: what moves there by itself is moved there. */
  follow(values: DeskValues): void {
    for (const id of this.current.keys())
      if (!Object.hasOwn(values, id)) {
        this.current.delete(id);
        this.stale.add(id);
        this.version++;
      }
    for (const [id, value] of Object.entries(values)) {
      const played = this.played.get(id);
      const now = this.current.get(id);
      if (played && !(now !== undefined && sameValue(now, value)))
        this.putOne(id, heldValue(played.control, value));
    }
  }

  /** Where a control stands: as it was moved, else as the patches have it; null if there is none. */
  valueOf(id: string): DeskValue | null {
    const played = this.played.get(id);
    return played ? (this.current.get(id) ?? played.stored) : null;
  }

  controlOf(id: string): DeskControl | null {
    return this.played.get(id)?.control ?? null;
  }

  /**
   * Keeps how the desk stands as a step that can be gone back to. `action`: what is done; moves of the same that follow each other are one
   * step, also where several hands move several controls. null: a step of its own.
   */
  private keepStep(action: string | null, time: number): void {
    const last = action === null ? undefined : this.touched.get(action);
    if (action === null) this.touched.clear();
    else this.touched.set(action, time);
    if (last !== undefined && Math.abs(time - last) < sameActionSeconds) return;
    this.undoable.push(this.values);
    if (this.undoable.length > mostSteps) this.undoable.shift();
  }

  get canUndo(): boolean {
    return this.undoable.length > 0;
  }

  /** Back to how the desk stood before the last action on it. */
  undo(): boolean {
    const before = this.undoable.pop();
    if (!before) return false;
    this.touched.clear();
    this.ways.clear();
    for (const id of this.current.keys()) this.stale.add(id);
    this.current.clear();
    this.version++;
    this.put(before);
    return true;
  }

  /**
   * A hand moves a control: what moved it by itself lets it go. `time`: seconds, for what counts as one action; null: it is no action of a
   * hand, and is not undone.
   */
  set(id: string, value: DeskValue, time: number | null): void {
    const played = this.played.get(id);
    if (!played) return;
    if (time !== null) this.keepStep(id, time);
    this.ways.delete(id);
    this.putOne(id, heldValue(played.control, value));
  }

  /** One number of a control. */
  setNumber(id: string, from: number, value: number, time: number): void {
    const now = this.valueOf(id);
    if (now === null) return;
    if (isWords(now)) {
      const options = this.optionsOf(id);
      const [low, high] = this.played.get(id)!.control.range;
      if (!options.length) return;
      const share = high === low ? 0 : (value - low) / (high - low);
      const at = Math.min(options.length - 1, Math.max(0, Math.floor(share * options.length)));
      this.set(id, options[at], time);
    } else
      this.set(
        id,
        now.map((old, k) => (k === from ? value : old)),
        time,
      );
  }

  /** Options of a choice, by id. */
  private optionsOf(id: string): string[] {
    const played = this.played.get(id);
    if (!played || !this.show) return [];
    for (const { target } of played.targets) {
      const spec = targetSpec(this.show, target, this.catalogue)?.spec;
      if (spec?.type === 'choice') return Object.keys(spec.options);
    }
    return [];
  }

  /** Moves controls to values over so many seconds, at once for 0. `isStep`: it can be undone as one action. */
  moveTo(values: DeskValues, seconds: number, time: number, isStep = true): void {
    if (isStep) this.keepStep(null, time);
    const atOnce: Record<string, DeskValue> = {};
    for (const [id, wanted] of Object.entries(values)) {
      const played = this.played.get(id);
      if (!played) continue;
      const to = heldValue(played.control, wanted);
      this.ways.delete(id);
      if (seconds > 0) this.ways.set(id, { from: this.valueOf(id)!, to, start: time, seconds });
      else atOnce[id] = to;
    }
    this.put(atOnce);
  }

  /** Puts controls on a mix of states of the desk: a morph. What stands in one of them only does not move. */
  mix(states: readonly DeskValues[], shares: readonly number[], time: number): void {
    if (states.length === 0) return;
    this.keepStep('morph', time);
    const way = this.morphOf(states);
    for (const { id, played, values } of way) {
      this.ways.delete(id);
      this.putOne(id, mixValues(played.control, values, shares, played.mix));
    }
  }

  /** What a mix of these states moves. A hand on the way between them asks for the same again and again. */
  private morphOf(states: readonly DeskValues[]): readonly MorphRow[] {
    const { morph } = this;
    if (morph?.states.length === states.length && states.every((state, k) => state === morph.states[k]))
      return morph.rows;
    const rows: MorphRow[] = [];
    for (const id of Object.keys(states[0])) {
      const played = this.played.get(id);
      if (!played || !states.every((state) => id in state)) continue;
      rows.push({ id, played, values: states.map((state) => heldValue(played.control, state[id])) });
    }
    this.morph = { states: [...states], rows };
    return rows;
  }

  /** Back home: one control, or all. */
  home(id: string | null, time: number): void {
    const ids = id === null ? [...this.played.keys()] : [id];
    const values = ids.flatMap((one) => {
      const played = this.played.get(one);
      return played ? [[one, played.control.home] as const] : [];
    });
    this.moveTo(Object.fromEntries(values), 0, time);
  }

  /** How all controls stand, or those of some pages: what a snapshot stores. */
  state(ids: Iterable<string> = this.played.keys()): Record<string, DeskValue> {
    const values: Record<string, DeskValue> = {};
    for (const id of ids) {
      const value = this.valueOf(id);
      if (value !== null) values[id] = value;
    }
    return values;
  }

  /** Whether anything moves by itself. */
  get isMoving(): boolean {
    return this.ways.size > 0;
  }

  /** Controls that are on their way. */
  get underWay(): string[] {
    return [...this.ways.keys()];
  }

  /** Ends what is under way; gives where it was going, with the seconds that were left. */
  stopWays(time: number): { values: DeskValues; seconds: number } {
    const values: Record<string, DeskValue> = {};
    let left = 0;
    for (const [id, way] of this.ways) {
      values[id] = way.to;
      left = Math.max(left, way.start + way.seconds - time);
    }
    this.ways.clear();
    return { values, seconds: left };
  }

  /** Goes on to a moment: what is under way moves, and what differs is given to the scenes. */
  advance(moment: Moment, time: number): void {
    if (this.ways.size) {
      const now: Record<string, DeskValue> = {};
      for (const [id, way] of this.ways) {
        const played = this.played.get(id)!;
        const share = way.seconds > 0 ? Math.min(1, Math.max(0, (time - way.start) / way.seconds)) : 1;
        now[id] =
          share >= 1 ? way.to : mixValues(played.control, [way.from, way.to], [1 - share, share], played.mix);
        if (share >= 1) this.ways.delete(id);
      }
      this.put(now);
    }
    for (const id of this.moving) this.stale.add(id);
    if (this.stale.size === 0) return;
    for (const id of this.stale) this.give(id, moment);
    this.stale.clear();
  }

  /** What a control stands at with its motions. */
  private moved(played: Played, value: DeskValue, moment: Moment): DeskValue {
    const { control, motions } = played;
    if (control.motions.length === 0 || isWords(value)) return value;
    return value.map((base, k) => {
      const one = this.numbers;
      one[0] = base;
      control.motions.forEach((motion, m) => {
        const at = m * 4 + k;
        if (motions[at]?.type !== motion.type)
          motions[at] = new MotionRun(motion.type, hash(at + 31) % 997, k);
        motions[at].apply(motion, one, moment, null);
      });
      return heldNumber(control, one[0]);
    });
  }

  private give(id: string, moment: Moment): void {
    const played = this.played.get(id);
    if (!played) return;
    const { control, targets } = played;
    const isHeld = this.current.has(id) || control.motions.length > 0;
    const value = isHeld ? this.moved(played, this.valueOf(id)!, moment) : null;
    if (
      !played.isNew &&
      (value === null ? played.given === null : played.given !== null && sameValue(value, played.given))
    )
      return;
    played.given = value;
    played.isNew = false;
    for (const { target, key } of targets) {
      const scene = this.givenIn(target.scene);
      if (value === null) {
        if (scene.values.delete(key)) scene.version++;
        continue;
      }
      const given = targetValue(control, target, value);
      scene.values.set(key, { node: target.node, part: target.part, value: given });
      scene.version++;
    }
  }

  private givenIn(scene: string): SceneGiven {
    let found = this.scenes.get(scene);
    if (!found) {
      const values = new Map<string, Given>();
      found = { version: 0, values, list: { [Symbol.iterator]: () => values.values() } };
      this.scenes.set(scene, found);
    }
    return found;
  }

  /** What the desk gives to a scene. `version` tells whether it is what it was. */
  given(scene: string): { version: number; values: Iterable<Given> } {
    const found = this.scenes.get(scene);
    return { version: found?.version ?? 0, values: found?.list ?? [] };
  }
}

/** What a state of the desk gives to one scene, at once: for pictures of snapshots. */
export function givenTo(show: Show, values: DeskValues, scene: string): Given[] {
  const list: Given[] = [];
  for (const { control } of deskControls(show.desk)) {
    if (!(control.id in values)) continue;
    const value = heldValue(control, values[control.id]);
    for (const target of control.targets)
      if (target.scene === scene)
        list.push({
          node: target.node,
          part: target.part,
          value: targetValue(control, target, value),
        });
  }
  return list;
}
