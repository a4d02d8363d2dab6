import { partsOf } from '../../core/kind/controls';
import { takes, type Carries, type Kind } from '../../core/kind/kind';

/** What is being added, and where. */
export interface AddRequest {
  /** Place on the patch. */
  at: readonly [number, number];
  /** Wire being pulled: only kinds that it fits are offered. */
  wire: { node: string; carries: Carries; end: 'source' | 'target'; port: string } | null;
}

/** The port of a kind that a pulled wire would go to, or null. */
export function fittingPort(kind: Kind, wire: AddRequest['wire']): string | null {
  if (!wire) return null;
  if (wire.end === 'target') return kind.output === wire.carries ? 'out' : null;
  const input = Object.entries(kind.inputs).find(([, spec]) => takes(spec, wire.carries));
  if (input) return input[0];
  if (wire.carries !== 'signal') return null;
  const control = Object.entries(kind.controls).find(
    ([, spec]) => partsOf(spec).length > 0 && spec.type !== 'toggle',
  );
  return control ? control[0] : null;
}

/** How well one word fits a kind: its name first, then what one would say it is for, then its summary. */
function wordFits(kind: Kind, word: string): number {
  const name = kind.label.toLowerCase();
  if (name.startsWith(word)) return 1;
  if (name.includes(word)) return 0.9;
  const words = kind.words.map((text) => text.toLowerCase());
  if (words.includes(word)) return 0.8;
  if (words.some((text) => text.startsWith(word))) return 0.6;
  if (words.some((text) => text.includes(word))) return 0.4;
  return kind.summary.toLowerCase().includes(word) ? 0.2 : 0;
}

/** Words that say nothing of what is meant. */
const empty = new Set(
  'a an and as at by do follow for from get give go i in into it let make makes me my of on or so some that the them then to up use want what where which with'.split(
    ' ',
  ),
);

/**
 * The kinds in which every word typed is found, best first; of two that fit as well, the shorter name. Where a whole need is
 * typed (“make copies of a shape follow pixels”) and no kind has all of it, those that have most of what it says.
 */
export function searchKinds(kinds: readonly Kind[], search: string): Kind[] {
  const typed = search
    .toLowerCase()
    .split(/[^\p{L}\p{N}&]+/u)
    .filter(Boolean);
  const meant = typed.filter((word) => !empty.has(word));
  const words = meant.length ? meant : typed;
  const fits = kinds.map((kind) => ({ kind, each: words.map((word) => wordFits(kind, word)) }));
  const all = fits.map(({ kind, each }) => ({ kind, fit: Math.min(...each) })).filter(({ fit }) => fit > 0);
  const most = fits.map(({ kind, each }) => ({ kind, fit: each.reduce((sum, fit) => sum + fit, 0) }));
  const enough = Math.max(...most.map(({ fit }) => fit)) / 2;
  return (all.length ? all : words.length > 2 ? most.filter(({ fit }) => fit > 0 && fit >= enough) : [])
    .sort((a, b) => b.fit - a.fit || a.kind.label.length - b.kind.label.length)
    .map(({ kind }) => kind);
}
