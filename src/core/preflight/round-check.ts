import { mostFlashes } from './flash-meter';
import { mostPattern } from './patterns';
import type { PreflightFinding, Subject } from './preflight-finding';

/** How something went over time, in even parts of it; of each part the worst. */
export interface Strip {
  /** Changes of light, and of red, in the second before. */
  general: number[];
  red: number[];
  /** Mean brightness, 0..1. */
  light: number[];
}

/** What a stretch of time showed, frame by frame: one round of a scene, or a performance. */
export interface RoundMeasure {
  /** Most changes of light in a second, and the time in seconds at which that second ended. */
  general: { most: number; at: number };
  red: { most: number; at: number };
  /** Largest share of the picture under bars at even distances, and when. */
  pattern: { most: number; at: number };
  /** How far the frame after the last is from the first, of 255: on average, at most, and where that is (shares from the upper left). */
  seam: { mean: number; worst: number; at: readonly [number, number] } | null;
  strip: Strip;
  /** Seconds that were looked at. */
  seconds: number;
}

/** Differences below these are not seen: noise of the renderer, and single pixels at an edge. */
const seen = { mean: 1, worst: 48 } as const;
/** Changes of light in a second that are allowed: a flash is two. */
export const mostChanges = 2 * mostFlashes;

const figure = (value: number): string => String(Number(value.toPrecision(3)));
const percent = (share: number): string => `${Math.round(100 * share)} %`;

function placeOf([x, y]: readonly [number, number]): string {
  const across = x < 1 / 3 ? 'left' : x > 2 / 3 ? 'right' : 'middle';
  const down = y < 1 / 3 ? 'upper ' : y > 2 / 3 ? 'lower ' : '';
  return `${down}${across}`;
}

/** The loop of a scene. Live, time goes on at its end; only one that is locked says that it closes. */
export interface LoopPromise {
  seconds: number;
  isLocked: boolean;
}

/** What must not, or should better not, go on stage of what was seen. `loop`: that of a scene, where it is one. */
export function roundFindings(
  { where, at }: Subject,
  measure: RoundMeasure,
  loop: LoopPromise | null,
): PreflightFinding[] {
  const findings: PreflightFinding[] = [];
  const { general, red, pattern, seam } = measure;
  for (const [name, { most: changes, at: second }] of [
    ['flashes', general],
    ['red flashes', red],
  ] as const)
    if (changes > mostChanges)
      findings.push({
        level: 'error',
        where,
        at,
        what: `More than three ${name} in a second: ${changes} changes of light over a quarter of the view in the second up to ${figure(second)} s, ${mostChanges} are allowed (ITU-R BT.1702, WCAG 2.3.1). Slow it down, or make it smaller or softer.`,
      });
  if (pattern.most > mostPattern)
    findings.push({
      level: 'note',
      where,
      at,
      what: `Bars of light and dark at even distances cover ${percent(pattern.most)} of the picture at ${figure(pattern.at)} s; over ${percent(mostPattern)}, large and strong ones can hurt (ITU-R BT.1702). Fewer, softer or moving apart they are harmless.`,
    });
  if (seam && loop && (seam.mean > seen.mean || seam.worst > seen.worst))
    findings.push({
      level: loop.isLocked ? 'warning' : 'note',
      where,
      at,
      what: `The loop of ${figure(loop.seconds)} s does not close: the frame after its last is ${figure(seam.mean)} of 255 from its first on average, ${figure(seam.worst)} at most, at the ${placeOf(seam.at)}. ${
        loop.isLocked
          ? 'It is locked, so something in it turns by no rate: look at formulas of time and at what remembers.'
          : 'On stage time goes on and nothing jumps; exported as a loop it would. Lock the loop, or look at what does not fit it, in the inspector with nothing chosen.'
      }`,
    });
  return findings;
}
