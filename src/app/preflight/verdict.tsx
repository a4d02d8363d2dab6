import clsx from 'clsx';
import { Download, Printer } from 'lucide-react';
import type { PreflightFinding } from '../../core/preflight/preflight-finding';
import { reportPage, reportText } from '../../core/preflight/report';
import { say } from '../parts/notices';
import { saveAs } from '../parts/save-as';
import { currentReport, findingsOf, preflightStore } from './preflight-run';

function keepReport(form: 'html' | 'json' | 'print'): void {
  const report = currentReport();
  const { show: looked } = preflightStore.getState();
  if (!report || !looked) return;
  const page = reportPage(report, looked.canvas.fps);
  if (form === 'json') saveAs(new Blob([reportText(report)], { type: 'application/json' }), 'preflight.json');
  else if (form === 'html') saveAs(new Blob([page], { type: 'text/html' }), 'preflight.html');
  else {
    const address = URL.createObjectURL(new Blob([page], { type: 'text/html' }));
    const window_ = window.open(address);
    if (!window_)
      say({ tone: 'warning', text: 'The browser let no window open. Save the report and print that.' });
    else window_.addEventListener('load', () => window_.print());
    setTimeout(() => URL.revokeObjectURL(address), 60000);
  }
}

/** What stands against the stage, in a few words. */
function verdict(findings: readonly PreflightFinding[], isDone: boolean): string {
  const count = (level: PreflightFinding['level']): number =>
    findings.filter((finding) => finding.level === level).length;
  const [errors, warnings] = [count('error'), count('warning')];
  const parts = [
    errors ? `${errors} must not go on stage` : '',
    warnings ? `${warnings} should be mended` : '',
  ].filter(Boolean);
  if (parts.length) return parts.join(' · ');
  return isDone ? 'Nothing stands against the stage' : 'Nothing found so far';
}

/** The line above all findings: what they come to, and what keeps them. */
export function Verdict() {
  const state = preflightStore();
  const findings = findingsOf(state);
  const isDone = state.running === null && state.reports.length === state.subjects.length;
  const tone = findings.some(({ level }) => level === 'error')
    ? 'text-error'
    : findings.some(({ level }) => level === 'warning')
      ? 'text-warning'
      : isDone && state.show
        ? 'text-success'
        : '';
  return (
    <div className="flex min-h-12 shrink-0 flex-wrap items-center gap-2 border-b edge px-4">
      <h2 className={clsx('grow text-base font-semibold', tone)} role="status">
        {state.show ? verdict(findings, isDone) : 'Known to be safe before doors'}
      </h2>
      {state.show && (
        <>
          <button type="button" className="tool" onClick={() => keepReport('print')}>
            <Printer size={14} /> Print
          </button>
          <button type="button" className="tool" onClick={() => keepReport('html')}>
            <Download size={14} /> Page
          </button>
          <button type="button" className="tool" onClick={() => keepReport('json')}>
            <Download size={14} /> JSON
          </button>
        </>
      )}
    </div>
  );
}
