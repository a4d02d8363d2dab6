import { moduleIdOf } from '../../core/module/module-kind';
import type { Kind } from '../../core/kind/kind';
import { searchWords } from '../parts/word-search';

/** Kinds by a need, best first; of what fits as well, favourites, then single steps before modules, which are made of them. */
export const searchKinds = (
  kinds: readonly Kind[],
  search: string,
  favourites: ReadonlySet<string> = new Set(),
): Kind[] =>
  searchWords(
    kinds,
    search,
    ({ label, words, summary }) => ({ name: label, words, summary }),
    ({ id }) => (favourites.has(id) ? 0 : moduleIdOf(id) === null ? 1 : 2),
  );
