import type { ControlSpec, Handle } from '../../core/kind/controls';
import { kindOf } from '../../core/kind/kind';
import { numbersOf, plainValue } from '../../core/run/node-run';
import type { PatchNode, Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';

/** A place on the monitor that can be dragged: heights from the middle, y up. */
export interface MonitorHandle {
  /** Names it among those of the node. */
  key: string;
  label: string;
  place: readonly [number, number];
  /** Place that it is measured from, drawn as a line to it. */
  from: readonly [number, number] | null;
  /** Whether something else drives it, so that the hand cannot. */
  driven: boolean;
  /** What its controls become with this handle at another place. */
  valuesAt(place: readonly [number, number]): Record<string, number | number[]>;
  /** What its control becomes without it, where it is one of a list. */
  without: (() => Record<string, number[]>) | null;
}

type Point = readonly [number, number];
const plus = (a: Point, b: Point): Point => [a[0] + b[0], a[1] + b[1]];
const minus = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1]];

function isDriven(scene: Scene, node: PatchNode, control: string): boolean {
  const names = [control, `${control}.x`, `${control}.y`];
  return (
    names.some((name) => node.formulas[name] !== undefined || (node.motions[name]?.length ?? 0) > 0) ||
    Object.values(scene.wires).some((wire) => wire.to.node === node.id && names.includes(wire.to.port))
  );
}

function pointHandle(
  handle: Handle,
  value: Point,
  origin: (control: string) => Point,
  aspect: number,
): { place: Point; from: Point | null; valueAt(place: Point): number[] } {
  switch (handle.as) {
    case 'place':
      return { place: value, from: null, valueAt: (p) => [p[0], p[1]] };
    case 'from': {
      const from = origin(handle.of);
      return { place: plus(from, value), from, valueAt: (p) => [...minus(p, from)] };
    }
    case 'box': {
      const from = origin(handle.of);
      return {
        place: plus(from, [value[0] / 2, value[1] / 2]),
        from,
        valueAt: (p) => minus(p, from).map((v) => Math.max(0, 2 * v)),
      };
    }
    case 'corner': {
      const own: Point = [(handle.at[0] * aspect) / 2, handle.at[1] / 2];
      return { place: plus(own, value), from: null, valueAt: (p) => [...minus(p, own)] };
    }
  }
}

/** A number that dragging over the whole monitor turns, or the wheel. */
export interface MonitorDrag {
  control: string;
  by: 'across' | 'up' | 'wheel';
  value: number;
  min: number;
  max: number;
}

/** What of a node is turned by dragging over the monitor: what nothing else drives. */
export function dragsOf(scene: Scene, node: PatchNode): MonitorDrag[] {
  const kind = kindOf(catalogue, node);
  if (!kind) return [];
  const specs: Readonly<Record<string, ControlSpec>> = kind.controls;
  const plain = Object.fromEntries(
    Object.entries(specs).map(([name, spec]) => [name, plainValue(spec, node.controls[name])]),
  );
  return Object.entries(specs).flatMap(([control, spec]): MonitorDrag[] => {
    if (!('drag' in spec) || !spec.drag || !(spec.shownIf?.(plain) ?? true)) return [];
    if (isDriven(scene, node, control)) return [];
    const [value] = numbersOf(spec, node.controls[control]);
    return [{ control, by: spec.drag, value, min: spec.min ?? -Infinity, max: spec.max ?? Infinity }];
  });
}

const halfTurn = 180;

/** Its value after a drag by a share of the monitor, or after so many pixels of a wheel. */
export function dragged(
  drag: MonitorDrag,
  from: number,
  across: number,
  up: number,
  wheelPx: number,
): number {
  const by = drag.by === 'across' ? -across * halfTurn : drag.by === 'up' ? -up * halfTurn : 0;
  const value = drag.by === 'wheel' ? from * Math.exp(wheelPx * 0.0012) : from + by;
  return Math.min(drag.max, Math.max(drag.min, value));
}

/** All that can be dragged of a node, as its kind says. `aspect`: of the canvas. */
export function handlesOf(scene: Scene, node: PatchNode, aspect: number): MonitorHandle[] {
  const kind = kindOf(catalogue, node);
  if (!kind) return [];
  const specs: Readonly<Record<string, ControlSpec>> = kind.controls;
  const plain = Object.fromEntries(
    Object.entries(specs).map(([name, spec]) => [name, plainValue(spec, node.controls[name])]),
  );
  const pointOf = (control: string): Point => {
    const [x, y] = numbersOf(specs[control], node.controls[control]);
    return [x, y];
  };
  return Object.entries(specs).flatMap(([control, spec]): MonitorHandle[] => {
    if (!(spec.shownIf?.(plain) ?? true)) return [];
    if (spec.type === 'point' && spec.handle) {
      const driven = isDriven(scene, node, control);
      const { place, from, valueAt } = pointHandle(spec.handle, pointOf(control), pointOf, aspect);
      return [
        {
          key: control,
          label: spec.label,
          driven,
          without: null,
          place,
          from,
          valuesAt: (p) => ({ [control]: valueAt(p) }),
        },
      ];
    }
    if (spec.type === 'angle' && spec.handle) {
      const { of, length } = spec.handle;
      const from = pointOf(of);
      const [turn] = numbersOf(spec, node.controls[control]);
      const [long] = numbersOf(specs[length], node.controls[length]);
      const a = (turn * Math.PI) / 180;
      return [
        {
          key: control,
          label: `${spec.label} and ${specs[length].label.toLowerCase()}`,
          driven: isDriven(scene, node, control) || isDriven(scene, node, length),
          without: null,
          place: plus(from, [(Math.cos(a) * long) / 2, (Math.sin(a) * long) / 2]),
          from,
          valuesAt(p) {
            const [x, y] = minus(p, from);
            const degrees = (Math.atan2(y, x) * 180) / Math.PI;
            return {
              [control]: Math.round((degrees < 0 ? degrees + 360 : degrees) * 10) / 10,
              [length]: Math.max(0.001, 2 * Math.hypot(x, y)),
            };
          },
        },
      ];
    }
    if (spec.type === 'numbers' && spec.handle) {
      const list = plain[control] as readonly number[];
      const origin = spec.handle.of ? pointOf(spec.handle.of) : ([0, 0] as const);
      return Array.from({ length: Math.floor(list.length / 2) }, (_, k) => ({
        key: `${control} ${k + 1}`,
        label: `${spec.label} ${k + 1}`,
        place: plus(origin, [list[2 * k], list[2 * k + 1]]),
        from: null,
        driven: false,
        valuesAt: (p) => ({
          [control]: list.map((v, j) =>
            j === 2 * k ? p[0] - origin[0] : j === 2 * k + 1 ? p[1] - origin[1] : v,
          ),
        }),
        without:
          list.length > 6
            ? () => ({ [control]: list.filter((_v, j) => j !== 2 * k && j !== 2 * k + 1) })
            : null,
      }));
    }
    return [];
  });
}

/** The control of a node that holds a list of places, and its value with one more at the end. */
export function placeAdder(node: PatchNode): { control: string; valueWith(place: Point): number[] } | null {
  const kind = kindOf(catalogue, node);
  if (!kind) return null;
  const plain = Object.fromEntries(
    Object.entries(kind.controls).map(([name, spec]) => [name, plainValue(spec, node.controls[name])]),
  );
  for (const [control, spec] of Object.entries(kind.controls)) {
    if (spec.type !== 'numbers' || !spec.handle || !(spec.shownIf?.(plain) ?? true)) continue;
    const { of } = spec.handle;
    const origin = of ? numbersOf(kind.controls[of], node.controls[of]) : [0, 0];
    const list = plain[control] as readonly number[];
    return { control, valueWith: (p) => [...list, p[0] - origin[0], p[1] - origin[1]] };
  }
  return null;
}

/** Shares of the picture inside which action and titles are safe on every screen (SMPTE ST 2046-1). */
export const safeAreas = { action: 0.93, title: 0.9 } as const;

/** Heights within which a handle goes to a line. */
const snapReach = 0.018;

/** A place drawn to the middle, the edges and the safe lines where it is near them. */
export function snapped(place: Point, aspect: number): Point {
  const near = (v: number, half: number): number => {
    const lines = [0, half, -half, half * safeAreas.title, -half * safeAreas.title];
    const line = lines.find((at) => Math.abs(v - at) < snapReach);
    return line ?? v;
  };
  return [near(place[0], aspect / 2), near(place[1], 0.5)];
}
