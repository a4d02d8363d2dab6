import { lazy, Suspense } from 'react';
import { headroom, ms } from '../../core/preflight/cost-check';
import { mostChanges } from '../../core/preflight/round-check';
import type { SubjectReport } from '../../core/preflight/run';
import type { Show } from '../../core/document/types';

const StripChart = lazy(() => import('./strip-chart'));

function Figure({ label, children, bad }: { label: string; children: React.ReactNode; bad?: boolean }) {
  return (
    <div>
      <dt className="quiet text-2xs">{label}</dt>
      <dd className={bad ? 'figures text-error' : 'figures'}>{children}</dd>
    </div>
  );
}

/** What was measured of one subject: figures, and how light changed over time. */
export function SubjectPanel({ report, show }: { report: SubjectReport; show: Show }) {
  const { subject, measure, cost } = report;
  const { fps } = show.canvas;
  const nodes = show.scenes.find(({ id }) => id === subject.at.scene)?.nodes;
  return (
    <section className="shrink-0 border-t edge px-4 py-2" aria-label={`Figures of ${subject.name}`}>
      <h3 className="heading mb-1">{subject.name}</h3>
      <dl className="mb-1 flex flex-wrap gap-x-6 gap-y-1">
        {measure && (
          <>
            <Figure
              label={`Changes of light a second, ${mostChanges} allowed`}
              bad={measure.general.most > mostChanges}
            >
              {measure.general.most}
            </Figure>
            <Figure label="of red" bad={measure.red.most > mostChanges}>
              {measure.red.most}
            </Figure>
            <Figure label="Even bars">{Math.round(100 * measure.pattern.most)} %</Figure>
            {measure.seam && (
              <Figure label="Seam, mean and worst of 255">
                {measure.seam.mean.toFixed(2)} · {measure.seam.worst}
              </Figure>
            )}
            <Figure label="Looked at">{Number(measure.seconds.toFixed(1))} s</Figure>
          </>
        )}
        {cost && (
          <>
            <Figure
              label={`A frame at ${cost.size[0]} x ${cost.size[1]}: median, 95th, worst`}
              bad={headroom(cost, fps) < 0}
            >
              {ms(cost.median)} · {ms(cost.p95)} · {ms(cost.worst)}
            </Figure>
            <Figure label="Headroom" bad={headroom(cost, fps) < 0}>
              {Math.round(100 * headroom(cost, fps))} %
            </Figure>
            <Figure label="Pictures on the card">{Math.round(cost.bytes / 1e6)} MB</Figure>
            {cost.nodes.length > 0 && (
              <Figure label="Dearest nodes">
                {cost.nodes
                  .slice(0, 3)
                  .map(({ node, ms: took }) => `${nodes?.[node]?.name ?? node} ${ms(took)}`)
                  .join(' · ')}
              </Figure>
            )}
          </>
        )}
      </dl>
      {measure && (
        <Suspense fallback={<div className="h-[150px]" />}>
          <div role="img" aria-label={`Changes of light of ${subject.name} over time`}>
            <StripChart measure={measure} />
          </div>
        </Suspense>
      )}
    </section>
  );
}
