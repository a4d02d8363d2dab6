import { headroom } from './cost-check';
import { byLevel, levelNames, type PreflightFinding } from './preflight-finding';
import { mostChanges, type Strip } from './round-check';
import { rehearsedFaults, type FaultOutcome } from './rehearsal';
import type { SubjectReport } from './run';

/** All that Preflight found, to be kept or printed. */
export interface PreflightReport {
  show: string;
  /** When it was looked at, ISO 8601; absent: not said. */
  at?: string;
  /** Machine it was looked at on, as its browser names it. */
  machine?: string;
  findings: PreflightFinding[];
  subjects: SubjectReport[];
  /** What faults did to the stage of a rehearsal; absent: none was held. */
  rehearsal?: FaultOutcome[];
}

/** A report as JSON. Findings and figures are as in the interface; times are milliseconds, sizes pixels. */
export const reportText = (report: PreflightReport): string => `${JSON.stringify(report, null, 2)}\n`;

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign]!);

const ms = (value: number): string => value.toFixed(1);

/** A strip as a small drawing: changes of light over time, and what is allowed. */
function stripDrawing({ general, red }: Strip): string {
  const [width, height] = [480, 40];
  const most = Math.max(mostChanges * 1.5, ...general, ...red);
  const place = (value: number): number => height - (value / most) * height;
  const line = (values: readonly number[], colour: string): string => {
    const points = values.map(
      (v, k) => `${((k / Math.max(1, values.length - 1)) * width).toFixed(1)},${place(v).toFixed(1)}`,
    );
    return `<polyline points="${points.join(' ')}" fill="none" stroke="${colour}"/>`;
  };
  const limit = place(mostChanges).toFixed(1);
  return `<svg viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" role="img" aria-label="Changes of light over time"><line x1="0" x2="${width}" y1="${limit}" y2="${limit}" stroke="#999" stroke-dasharray="4 3"/>${line(general, '#222')}${line(red, '#c22')}</svg>`;
}

function subjectRow({ subject, measure, cost, findings }: SubjectReport, fps: number): string {
  const worst = byLevel(findings)[0];
  const cells = [
    escaped(subject.name),
    worst ? levelNames[worst.level] : 'Fine',
    measure ? `${measure.general.most} / ${measure.red.most}` : '',
    measure?.seam ? `${measure.seam.mean.toFixed(2)} / ${measure.seam.worst}` : '',
    cost ? `${ms(cost.median)} / ${ms(cost.p95)} / ${ms(cost.worst)}` : '',
    cost ? `${Math.round(100 * headroom(cost, fps))} %` : '',
    cost ? `${Math.round(cost.bytes / 1e6)} MB` : '',
    measure ? stripDrawing(measure.strip) : '',
  ];
  return `<tr>${cells.map((cell) => `<td>${cell}</td>`).join('')}</tr>`;
}

/** What a rehearsal came to, as a table; nothing where none was held. */
function rehearsalTable(outcomes: readonly FaultOutcome[]): string {
  if (!outcomes.length) return '';
  const rows = outcomes.map(({ fault, scene, stillMs, usualMs, leastMean, usualMean, skipped }) => {
    const cells =
      skipped === undefined
        ? [
            scene,
            `${(stillMs / 1000).toFixed(1)} (${(usualMs / 1000).toFixed(1)})`,
            `${leastMean.toFixed(0)} (${usualMean.toFixed(0)})`,
          ]
        : [skipped, '', ''];
    return `<tr><th>${escaped(rehearsedFaults[fault])}</th>${cells.map((cell) => `<td>${escaped(cell)}</td>`).join('')}</tr>`;
  });
  return `<h2>Rehearsal of faults</h2>
<table><thead><tr><th>Fault</th><th>On air</th><th>Longest still picture, s (usually)</th><th>Least light of 255 (usually)</th></tr></thead>
<tbody>${rows.join('\n')}</tbody></table>`;
}

/** A report as a page that stands by itself and can be printed. `fps`: frames a second of the show. */
export function reportPage(report: PreflightReport, fps: number): string {
  const { show, at, machine, findings, subjects, rehearsal = [] } = report;
  const lists = (['error', 'warning', 'note'] as const).map((level) => {
    const found = findings.filter((finding) => finding.level === level);
    if (!found.length) return '';
    const items = found.map(
      ({ where, what }) => `<li><strong>${escaped(where)}</strong> ${escaped(what)}</li>`,
    );
    return `<h2>${levelNames[level]}</h2><ul>${items.join('')}</ul>`;
  });
  const head = [
    'Subject',
    'Result',
    `Changes a second (${mostChanges} allowed): light / red`,
    'Seam of 255: mean / worst',
    'Milliseconds a frame: median / 95th / worst',
    'Headroom',
    'Pictures',
    'Changes over time',
  ];
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>Preflight of ${escaped(show)}</title>
<style>body{font:14px/1.45 system-ui,sans-serif;margin:2em;color:#111;max-width:90em}table{border-collapse:collapse}td,th{border-bottom:1px solid #ccc;padding:.3em .8em .3em 0;text-align:left;vertical-align:top;font-variant-numeric:tabular-nums}th{font-weight:600}h2{margin-top:1.4em}</style></head>
<body><h1>Preflight of ${escaped(show)}</h1>
<p>${[at, machine]
    .filter((part): part is string => !!part)
    .map(escaped)
    .join(' · ')}</p>
${findings.length ? lists.join('\n') : '<p>Nothing was found.</p>'}
<h2>What was looked at</h2>
<table><thead><tr>${head.map((cell) => `<th>${cell}</th>`).join('')}</tr></thead>
<tbody>${subjects.map((subject) => subjectRow(subject, fps)).join('\n')}</tbody></table>
${rehearsalTable(rehearsal)}
</body></html>
`;
}
