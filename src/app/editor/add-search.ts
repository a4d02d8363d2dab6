import MiniSearch from 'minisearch';
import { moduleIdOf } from '../../core/module/module-kind';
import type { Kind } from '../../core/kind/kind';

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

const indexes = new WeakMap<readonly Kind[], MiniSearch<Kind>>();

/** Kinds in which something like each word is found: for words that were mistyped. */
function likely(kinds: readonly Kind[], words: readonly string[]): Kind[] {
  let index = indexes.get(kinds);
  if (!index) {
    index = new MiniSearch<Kind>({
      fields: ['label', 'words'],
      extractField: (kind, field) =>
        field === 'words' ? kind.words.join(' ') : String(kind[field as 'id' | 'label']),
      searchOptions: {
        boost: { label: 2 },
        combineWith: 'AND',
        // Two letters may be wrong or exchanged, one in words of four; in shorter ones any other word would do.
        fuzzy: (word) => (word.length > 4 ? 2 : word.length > 3 && 1),
        prefix: (word) => word.length > 3,
      },
    });
    index.addAll(kinds);
    indexes.set(kinds, index);
  }
  const byId = new Map(kinds.map((kind) => [kind.id, kind]));
  return index.search(words.join(' ')).map(({ id }) => byId.get(String(id))!);
}

/**
 * The kinds in which every word typed is found, best first; of two that fit as well, the favourite, then a single step before a module, then the shorter name. Where a whole need is
 * typed (“make copies of a shape follow pixels”) and no kind has all of it, those that have most of what it says; where nothing is
 * found at all, what may have been meant.
 */
export function searchKinds(
  kinds: readonly Kind[],
  search: string,
  favourites: ReadonlySet<string> = new Set(),
): Kind[] {
  const typed = search
    .toLowerCase()
    .split(/[^\p{L}\p{N}&]+/u)
    .filter(Boolean);
  const meant = typed.filter((word) => !empty.has(word));
  const words = meant.length ? meant : typed;
  const fits = kinds.map((kind) => ({ kind, each: words.map((word) => wordFits(kind, word)) }));
  const all = fits.map(({ kind, each }) => ({ kind, fit: Math.min(...each) })).filter(({ fit }) => fit > 0);
  if (all.length === 0) {
    const meantSo = likely(kinds, words);
    if (meantSo.length) return meantSo;
  }
  const most = fits.map(({ kind, each }) => ({ kind, fit: each.reduce((sum, fit) => sum + fit, 0) }));
  const enough = Math.max(...most.map(({ fit }) => fit)) / 2;
  // Of what fits as well, single steps come before modules, which are made of them.
  const rank = ({ id }: Kind): number => (favourites.has(id) ? 0 : moduleIdOf(id) === null ? 1 : 2);
  return (all.length ? all : words.length > 2 ? most.filter(({ fit }) => fit > 0 && fit >= enough) : [])
    .sort((a, b) => b.fit - a.fit || rank(a.kind) - rank(b.kind) || a.kind.label.length - b.kind.label.length)
    .map(({ kind }) => kind);
}
