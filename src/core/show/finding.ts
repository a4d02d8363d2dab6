/** Something a check found. */
export interface Finding {
  level: 'error' | 'warning';
  /** Place in the document, for example `scenes[0].nodes.n3.controls.size`. */
  where: string;
  what: string;
}
