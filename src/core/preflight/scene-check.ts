import type { Finding } from '../show/finding';
import { mostFlashes } from './flash-meter';

/** What one round of a scene showed, frame by frame. */
export interface SceneMeasure {
  /** Most changes of light in a second, and the time in seconds at which that second ended. */
  general: { most: number; at: number };
  red: { most: number; at: number };
  /** How far the frame after the last is from the first, of 255: on average, and at most. */
  seam: { mean: number; worst: number };
  /** Seconds of the round. */
  seconds: number;
  /** Whether anything in it depends on more than its moment: feedback, a delay, an envelope. */
  remembers: boolean;
}

/** Differences below these are not seen: noise of the renderer, and single pixels at an edge. */
const seen = { mean: 1, worst: 48 } as const;

const figure = (value: number): string => String(Number(value.toPrecision(3)));

/** What a scene must not, or should better not, go on stage with. `where`: the place of the scene in the document. */
export function sceneFindings(where: string, measure: SceneMeasure): Finding[] {
  const findings: Finding[] = [];
  const { general, red, seam, seconds, remembers } = measure;
  const most = 2 * mostFlashes;
  for (const [name, { most: changes, at }] of [
    ['flashes', general],
    ['red flashes', red],
  ] as const)
    if (changes > most)
      findings.push({
        level: 'error',
        where,
        what: `More than three ${name} in a second: ${changes} changes of light over a quarter of the view in the second up to ${figure(at)} s, ${most} are allowed (ITU-R BT.1702, WCAG 2.3.1). Slow it down, or make it smaller or softer.`,
      });
  if (seam.mean > seen.mean || seam.worst > seen.worst)
    findings.push({
      level: 'warning',
      where,
      what: `The loop of ${figure(seconds)} s does not close: the frame after its last is ${figure(seam.mean)} of 255 from its first on average, ${figure(seam.worst)} at most. ${
        remembers
          ? 'It has a memory, which is still empty in the first round; the second may close.'
          : 'Look at what does not fit its loop, in the inspector with nothing chosen.'
      }`,
    });
  return findings;
}
