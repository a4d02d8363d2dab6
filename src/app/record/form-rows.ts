import type { ExportSpec } from '../../core/export/spec';
import type { Show } from '../../core/document/types';

/** What rows of the form are given: the show, the export as it stands, and what changes it. */
export interface FormRows {
  show: Show;
  spec: ExportSpec;
  set(change: Partial<ExportSpec>): void;
}
