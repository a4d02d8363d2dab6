import type { PreflightFinding } from './preflight-finding';

/** Faults that are thrown into a rehearsal, in the order in which they come. */
export const rehearsedFaults = {
  page: 'Desk blocked for a second',
  device: 'Devices pulled',
  file: 'File that can’t be read',
  storage: 'Storage full',
  server: 'Server gone',
  context: 'Graphics card lost',
  // One that was replaced is given more time than an evening of a minute has: the hanging engine comes before the one that is gone.
  hang: 'Engine hangs',
  crash: 'Engine gone',
} as const;
export type RehearsedFault = keyof typeof rehearsedFaults;

/** What the stage showed at a moment. */
export interface StageSample {
  /** Milliseconds. */
  at: number;
  /** Mean brightness, 0..255. */
  mean: number;
  /** Anything that differs whenever the picture does. */
  print: number;
}

/** What the stage showed around a fault. */
export interface FaultOutcome {
  fault: RehearsedFault;
  /** Name of the scene that was on air. */
  scene: string;
  /** Most milliseconds between two different pictures, before the fault and from it on. */
  usualMs: number;
  stillMs: number;
  /** Lowest mean brightness before and from then on, 0..255. */
  usualMean: number;
  leastMean: number;
  /** What was said of it; empty: nothing. */
  said: string;
  /** Why nothing could be thrown in; absent: it was. */
  skipped?: string;
}

/** Milliseconds after which a stage has to move again. */
const longestStillMs = 1000;
/** Share of the usual brightness below which a stage went dark, and the brightness up to which that is no matter. */
const darkShare = 0.25;
const alwaysDark = 3;

/** Longest time for which samples showed the same picture, up to their end. */
function longestStill(samples: readonly StageSample[]): number {
  let longest = 0;
  let since = samples[0]?.at ?? 0;
  samples.forEach((sample, k) => {
    if (k > 0 && sample.print !== samples[k - 1].print) since = sample.at;
    longest = Math.max(longest, sample.at - since);
  });
  return longest;
}

const leastOf = (samples: readonly StageSample[]): number =>
  samples.reduce((least, { mean }) => Math.min(least, mean), Infinity);

/** What samples from before a fault and from then on say. `before` and `after` have at least one each. */
export const outcomeOf = (
  fault: RehearsedFault,
  scene: string,
  before: readonly StageSample[],
  after: readonly StageSample[],
  said: string,
): FaultOutcome => ({
  fault,
  scene,
  usualMs: longestStill(before),
  // The picture that stood when it came counts from then on.
  stillMs: longestStill(after),
  usualMean: leastOf(before),
  leastMean: leastOf(after),
  said,
});

/** Whether the stage went dark. */
export const wentDark = ({ usualMean, leastMean }: FaultOutcome): boolean =>
  usualMean > alwaysDark && leastMean < usualMean * darkShare;

/**
 * Whether it stood still for too long: longer than a second, and than three of the longest waits for a picture that this machine has by
 * itself.
 */
export const stoodStill = ({ usualMs, stillMs }: FaultOutcome): boolean =>
  stillMs > Math.max(longestStillMs, 3 * usualMs);

/** What a rehearsal has to say. */
export function rehearsalFindings(outcomes: readonly FaultOutcome[]): PreflightFinding[] {
  return outcomes.flatMap((outcome): PreflightFinding[] => {
    if (outcome.skipped !== undefined) return [];
    const where = `rehearsal ${rehearsedFaults[outcome.fault]}`;
    if (wentDark(outcome))
      return [
        {
          level: 'error',
          where,
          what: `The stage went dark during “${outcome.scene}”: ${outcome.leastMean.toFixed(1)} of 255 where it had ${outcome.usualMean.toFixed(1)}.`,
        },
      ];
    if (stoodStill(outcome))
      return [
        {
          level: 'warning',
          where,
          what: `The last picture of “${outcome.scene}” stood for ${(outcome.stillMs / 1000).toFixed(1)} s. A second is promised; use a smaller canvas or a quicker machine.`,
        },
      ];
    return [];
  });
}
