/** A value of a document, as JSON has it. */
export type Json = string | number | boolean | null | Json[] | { [key: string]: Json | undefined };
export type Dict = { [key: string]: Json | undefined };
/** One of a list whose parts have ids of their own: scenes, cues, controls of the desk … */
export type Thing = Dict & { id: string };

export const isDict = (value: unknown): value is Dict =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Whether a list is one of things with ids of their own. An empty one may become one, and is none yet. */
export function isThings(value: unknown): value is Thing[] {
  if (!Array.isArray(value) || value.length === 0) return false;
  const ids = new Set(value.map((one) => (isDict(one) && typeof one.id === 'string' ? one.id : '')));
  return ids.size === value.length && !ids.has('');
}
