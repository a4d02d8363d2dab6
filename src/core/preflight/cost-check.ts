import type { PreflightFinding, Subject } from './preflight-finding';

/** What drawing costs on this machine. Times are milliseconds a frame. */
export interface CostMeasure {
  /** Pixels it was measured at. */
  size: readonly [number, number];
  /** Frames that were timed. */
  frames: number;
  median: number;
  p95: number;
  worst: number;
  /** Bytes of the pictures that it keeps on the GPU. */
  bytes: number;
  /** The dearest nodes by themselves, the dearest first. */
  nodes: readonly { node: string; ms: number }[];
  /** The largest share of the size at which it keeps up, as it was measured; null: at none that was tried. */
  holds: number | null;
}

/** The middle of times, the one that 95 of 100 stay below, and the longest. */
export function timesOf(times: readonly number[]): Pick<CostMeasure, 'median' | 'p95' | 'worst' | 'frames'> {
  const sorted = [...times].sort((a, b) => a - b);
  const at = (share: number): number =>
    sorted[Math.min(sorted.length - 1, Math.ceil(share * sorted.length) - 1)] ?? 0;
  return { frames: sorted.length, median: at(0.5), p95: at(0.95), worst: at(1) };
}

/** Share of a frame's time that is left, below zero where it takes longer. */
export const headroom = ({ p95 }: CostMeasure, fps: number): number => 1 - (p95 * fps) / 1000;

/** Shares of the full size at which it is tried whether a scene keeps up. */
export const triedShares = [1, 0.75, 0.5, 0.25] as const;
/** Share of a frame's time that should be left: for the desk, for takes, and for what else the machine does. */
const leastHeadroom = 0.15;
/** Bytes of pictures that a graphics card of an office machine holds at ease. */
const easyBytes = 1.5e9;

/** Milliseconds as they are read. */
export const ms = (value: number): string => `${value < 10 ? value.toFixed(1) : Math.round(value)} ms`;

/** What a scene costs too much. `nameOf`: names of its nodes. */
export function costFindings(
  { where, at }: Subject,
  cost: CostMeasure,
  fps: number,
  nameOf: (node: string) => string,
): PreflightFinding[] {
  const findings: PreflightFinding[] = [];
  const [width, height] = cost.size;
  const left = headroom(cost, fps);
  const [dearest] = cost.nodes;
  const who = dearest ? ` The dearest: ${nameOf(dearest.node)}, ${ms(dearest.ms)}.` : '';
  if (left < leastHeadroom) {
    const held =
      cost.holds === null
        ? 'It keeps up at none of the sizes that were tried.'
        : `It would keep up at ${Math.round(width * cost.holds)} x ${Math.round(height * cost.holds)}.`;
    findings.push({
      level: 'warning',
      where,
      at: dearest ? { ...at, node: dearest.node } : at,
      what:
        left < 0
          ? `Too slow for this machine: ${ms(cost.p95)} a frame at ${width} x ${height}, and ${ms(1000 / fps)} are there at ${fps} frames a second. ${held}${who}`
          : `Little headroom: ${ms(cost.p95)} of ${ms(1000 / fps)} a frame at ${width} x ${height}.${who}`,
    });
  }
  if (cost.bytes > easyBytes)
    findings.push({
      level: 'warning',
      where,
      at,
      what: `It keeps ${(cost.bytes / 1e9).toFixed(1)} GB of pictures on the graphics card; many cards have less to spare. Take fewer past frames, smaller sizes, or 16 bits for 32.`,
    });
  return findings;
}
