import type { Rgba } from '../src/core/document/types';

/** The colours of Night Apiary: honey and wax against a glasshouse at night. */
export const palette = {
  night: [0.027, 0.024, 0.05, 1],
  plum: [0.13, 0.06, 0.16, 1],
  honey: [1, 0.66, 0.2, 1],
  wax: [1, 0.9, 0.68, 1],
  ember: [0.93, 0.33, 0.16, 1],
  glass: [0.2, 0.72, 0.7, 1],
  clear: [0, 0, 0, 0],
} satisfies Record<string, Rgba>;
