import type { Show } from '../document/types';
import type { ExportSource } from '../export/spec';
import type { Catalogue } from '../kind/kind';
import { loopReport } from '../show/loop-report';
import { hasWindow } from '../wall/outputs';
import { costFindings, type CostMeasure } from './cost-check';
import type { PreflightFinding, Subject } from './preflight-finding';
import { roundFindings, type RoundMeasure } from './round-check';
import { performanceSubjects, sceneSubject } from './standing';

/** Seconds of a subject that are looked at, at most. */
const longestLook = 60;
/** Frames that are timed at each size, of a scene or an output and of a performance with its transitions. */
const timedFrames = { still: 12, played: 48 } as const;
/** Seconds after which cues that wait for a hand begin while the running order is looked at. */
const handSeconds = 4;

interface Measured {
  source: ExportSource;
  output: string | null;
}

/** What draws and measures: an engine. */
export interface PreflightMeans {
  /** Looks on; asked with `isNew` false it goes on where it was. */
  measure(
    subject: Measured,
    longest: number,
    isNew: boolean,
  ): Promise<{ done: number; measure: RoundMeasure | null }>;
  /** Absent: cost is not asked for. */
  cost?(subject: Measured, frames: number): Promise<CostMeasure>;
}

/** What was found out about a subject. */
export interface SubjectReport {
  subject: Subject;
  measure: RoundMeasure | null;
  cost: CostMeasure | null;
  findings: PreflightFinding[];
}

const sourceOf = ({ type, at }: Subject): ExportSource => {
  if (type === 'cues') return { type, handSeconds };
  if (type === 'moves') return { type };
  return { type: 'scene', scene: at.scene!, node: null };
};

/** The outputs of a wall that have a window, each showing a scene. */
const outputSubjects = ({ wall }: Show, scene: string): Subject[] =>
  wall.outputs.filter(hasWindow).map(({ id, name }) => ({
    type: 'output',
    name,
    where: `wall.outputs.${id} ${name}`,
    at: { view: 'wall', scene },
    output: id,
  }));

/** All that a show can be looked at by; outputs only where their cost is asked for. */
export const subjectsOf = (show: Show, withCost: boolean): Subject[] => [
  ...show.scenes.map((scene) => sceneSubject(show, scene)),
  ...performanceSubjects(show),
  ...(withCost ? outputSubjects(show, show.scenes[0].id) : []),
];

/** Looks at one subject. `told`: the share that is done. What cannot be drawn is an error that says why. */
export async function checkSubject(
  show: Show,
  catalogue: Catalogue,
  subject: Subject,
  means: PreflightMeans,
  told: (done: number) => void = () => undefined,
): Promise<SubjectReport> {
  const report: SubjectReport = { subject, measure: null, cost: null, findings: [] };
  const { type, at, where } = subject;
  const { fps } = show.canvas;
  const scene = show.scenes.find(({ id }) => id === at.scene);
  const measured: Measured = { source: sourceOf(subject), output: subject.output ?? null };
  const share = means.cost ? 0.8 : 1;
  try {
    if (type !== 'output') {
      for (let isNew = true; !report.measure; isNew = false) {
        const { done, measure } = await means.measure(measured, longestLook, isNew);
        report.measure = measure;
        told(done * share);
      }
      const loop =
        type === 'scene' && scene
          ? {
              seconds: loopReport(scene, catalogue, show.tempo, fps).seconds,
              isLocked: scene.loop.lock,
            }
          : null;
      report.findings.push(...roundFindings(subject, report.measure, loop));
    }
    if (means.cost) {
      report.cost = await means.cost(
        measured,
        type === 'cues' || type === 'moves' ? timedFrames.played : timedFrames.still,
      );
      const nameOf = (node: string): string => scene?.nodes[node]?.name ?? node;
      report.findings.push(...costFindings(subject, report.cost, fps, nameOf));
    }
  } catch (error) {
    report.findings.push({
      level: 'error',
      where,
      at,
      what: `It cannot be drawn. ${error instanceof Error ? error.message : String(error)}`,
    });
  }
  told(1);
  return report;
}
