import MiniSearch from 'minisearch';

/** What is searched of a thing: its name, what one would say it is for, and a text about it. */
export interface SearchText {
  name: string;
  words: readonly string[];
  summary: string;
}

/** How well one word fits: the name first, then what one would say it is for, then the text. */
function wordFits({ name, words, summary }: SearchText, word: string): number {
  if (name.startsWith(word)) return 1;
  if (name.includes(word)) return 0.9;
  if (words.includes(word)) return 0.8;
  if (words.some((text) => text.startsWith(word))) return 0.6;
  if (words.some((text) => text.includes(word))) return 0.4;
  return summary.includes(word) ? 0.2 : 0;
}

/** Words that say nothing of what is meant. */
const empty = new Set(
  'a an and as at by do follow for from get give go i in into it let make makes me my of on or so some that the them then to up use want what where which with'.split(
    ' ',
  ),
);

/** Things by their texts, in lower case, with the index for words that were mistyped: made at the first search. */
interface Searched {
  texts: SearchText[];
  index: MiniSearch<{ id: number; name: string; words: string }>;
}
const known = new WeakMap<readonly unknown[], Searched>();

function searched<T>(things: readonly T[], textOf: (thing: T) => SearchText): Searched {
  let made = known.get(things);
  if (made) return made;
  const texts = things.map(textOf).map(({ name, words, summary }) => ({
    name: name.toLowerCase(),
    words: words.map((text) => text.toLowerCase()),
    summary: summary.toLowerCase(),
  }));
  const index: Searched['index'] = new MiniSearch({
    fields: ['name', 'words'],
    searchOptions: {
      boost: { name: 2 },
      combineWith: 'AND',
      // Two letters may be wrong or exchanged, one in words of four; in shorter ones any other word would do.
      fuzzy: (word) => (word.length > 4 ? 2 : word.length > 3 && 1),
      prefix: (word) => word.length > 3,
    },
  });
  index.addAll(texts.map(({ name, words }, id) => ({ id, name, words: words.join(' ') })));
  known.set(things, (made = { texts, index }));
  return made;
}

/** A word with two neighbouring letters exchanged, in every place. */
const exchanged = (word: string): string[] =>
  Array.from(
    { length: word.length - 1 },
    (_, k) => word.slice(0, k) + word[k + 1] + word[k] + word.slice(k + 2),
  );

/**
 * The things in which every word typed is found, best first; of two that fit as well, that of the lower rank, then that of the shorter
 * name. Where a whole need is typed (“make copies of a shape follow pixels”) and nothing has all of it, those that have most of what it
 * says; where nothing is found at all, what may have been meant. `things` has to be the same list each time: its texts are read once.
 */
export function searchWords<T>(
  things: readonly T[],
  search: string,
  textOf: (thing: T) => SearchText,
  rankOf: (thing: T) => number = () => 0,
): T[] {
  const typed = search
    .toLowerCase()
    .split(/[^\p{L}\p{N}&]+/u)
    .filter(Boolean);
  const meant = typed.filter((word) => !empty.has(word));
  const words = meant.length ? meant : typed;
  if (!words.length) return [];
  const { texts, index } = searched(things, textOf);
  const fitsOf = (fit: (text: SearchText, word: string) => number) =>
    things.map((thing, k) => ({
      thing,
      length: texts[k].name.length,
      each: words.map((word) => fit(texts[k], word)),
    }));
  const fits = fitsOf(wordFits);
  const withAll = (some: typeof fits) =>
    some.map((of) => ({ ...of, fit: Math.min(...of.each) })).filter(({ fit }) => fit > 0);
  let all = withAll(fits);
  // Short words are found with two letters exchanged; in longer ones more may be wrong.
  if (all.length === 0 && words.some((word) => word.length > 2))
    all = withAll(
      fitsOf((text, word) => Math.max(...[word, ...exchanged(word)].map((one) => wordFits(text, one)))),
    );
  if (all.length === 0) {
    const likely = index.search(words.join(' '));
    if (likely.length) return likely.map(({ id }) => things[Number(id)]);
  }
  const most = fits.map((of) => ({ ...of, fit: of.each.reduce((sum, fit) => sum + fit, 0) }));
  const enough = Math.max(...most.map(({ fit }) => fit)) / 2;
  return (all.length ? all : words.length > 2 ? most.filter(({ fit }) => fit > 0 && fit >= enough) : [])
    .sort((a, b) => b.fit - a.fit || rankOf(a.thing) - rankOf(b.thing) || a.length - b.length)
    .map(({ thing }) => thing);
}
