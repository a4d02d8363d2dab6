import type { Finding } from '../show/finding';

/** Where a finding is looked at. */
interface FindingPlace {
  view: 'build' | 'play' | 'wall' | 'inputs' | 'shows';
  scene?: string;
  node?: string;
}

/** What a press does about a finding. */
export type Mend =
  { do: 'lock-loop'; scene: string } | { do: 'keep-storage' } | { do: 'guard'; scene: string; wire: string };

/** Something that Preflight has to say. A note is worth knowing, and nothing that has to be mended. */
export interface PreflightFinding extends Omit<Finding, 'level'> {
  level: Finding['level'] | 'note';
  at?: FindingPlace;
  mend?: Mend;
}

/** What is looked at while it plays: a scene by itself, the running order with its transitions, recorded moves, or an output. */
export interface Subject {
  type: 'scene' | 'cues' | 'moves' | 'output';
  name: string;
  /** Place in the document. */
  where: string;
  at: FindingPlace;
  /** Output of the wall that shows it; absent: the canvas. */
  output?: string;
}

/** Grades of findings, as they are called; the worst first. */
export const levelNames = {
  error: 'Must not go on stage',
  warning: 'Should be mended',
  note: 'Worth knowing',
} as const;

const order = ['error', 'warning', 'note'] as const;

/** The worst first; what is alike stays in its order. */
export const byLevel = (findings: readonly PreflightFinding[]): PreflightFinding[] =>
  order.flatMap((level) => findings.filter((finding) => finding.level === level));

/** Whether anything must not go on stage. */
export const mustNotGoOn = (findings: readonly PreflightFinding[]): boolean =>
  findings.some(({ level }) => level === 'error');
