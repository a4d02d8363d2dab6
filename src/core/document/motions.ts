import type { Motion, PatchNode } from './types';

/** Nodes that motions wait for. */
export const triggersOf = (motions: readonly Motion[] = []): string[] =>
  motions.flatMap((motion) => (motion.type === 'hit' && motion.trigger !== null ? [motion.trigger] : []));

/** Names other nodes in place of those that the motions of a node wait for; null takes one away. */
export function renameTriggers(node: PatchNode, other: (id: string) => string | null): void {
  for (const motion of Object.values(node.motions).flat())
    if (motion.type === 'hit' && motion.trigger !== null) motion.trigger = other(motion.trigger);
}

/** A motion as it begins: an eighth of the control's range. `seed` sets it apart from others of its type. */
export function freshMotion(type: Motion['type'], range: readonly [number, number], seed: number): Motion {
  const base = { on: true, amount: Number(((range[1] - range[0]) / 8).toPrecision(2)) };
  switch (type) {
    case 'swing':
      return { type, ...base, shape: 'sine', rate: 0.25, unit: 'hertz', phase: 0 };
    case 'wander':
      return { type, ...base, speed: 0.5, seed };
    case 'ramp':
      return { type, ...base, way: 'round', length: 4, unit: 'beats', eased: false };
    case 'walk':
      return { type, ...base, rate: 2, smooth: true, seed };
    case 'hit':
      return { type, ...base, trigger: null, attack: 0.02, decay: 0.5 };
    case 'colours':
      return {
        type,
        on: true,
        amount: 1,
        stops: [
          { at: 0, colour: [0.94, 0.65, 0.23, 1] },
          { at: 1, colour: [0.37, 0.78, 0.75, 1] },
        ],
        way: 'toAndFro',
        length: 4,
        start: 0,
        unit: 'seconds',
      };
    case 'follow':
      return { type, on: true, amount: 1, rise: 0.5, fall: 0.5 };
  }
}

/** How far the motions of a part can move a value from where the hand set it. */
export function reachOf(motions: readonly Motion[], base: number): [number, number] {
  let [low, high] = [base, base];
  for (const motion of motions) {
    if (!motion.on || motion.type === 'follow' || motion.type === 'colours') continue;
    const { amount, type } = motion;
    // A ramp and a hit go one way only, the others to both sides.
    const isOneWay = type === 'ramp' || type === 'hit';
    low += isOneWay ? Math.min(0, amount) : -Math.abs(amount);
    high += isOneWay ? Math.max(0, amount) : Math.abs(amount);
  }
  return [low, high];
}

/** The motions of one part: those of its control as a whole first, then its own. */
export function motionsOf(node: PatchNode, control: string, part: string): readonly Motion[] {
  const own = node.motions[part] ?? [];
  const whole = part === control ? undefined : node.motions[control];
  return whole?.length ? [...whole, ...own] : own;
}
