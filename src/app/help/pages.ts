import news from '../../../CHANGELOG.md?raw';
import exports from '../../../docs/export.md?raw';
import guide from '../../../docs/guide.md?raw';
import machines from '../../../docs/machines.md?raw';
import modules from '../../../docs/modules.md?raw';
import preflight from '../../../docs/preflight.md?raw';
import playing from '../../../docs/playing.md?raw';
import wall from '../../../docs/wall.md?raw';
import { sectionsOf, type Section } from './sections';

const pictures = import.meta.glob<string>('../../../docs/screenshots/*.png', {
  query: '?url',
  import: 'default',
  eager: true,
});

/** Everything that Help can show of the docs, in the order of its contents. */
export const helpSections: readonly Section[] = Object.entries({
  guide,
  modules,
  playing,
  wall,
  preflight,
  machines,
  export: exports,
  news,
}).flatMap(([page, text]) => sectionsOf(page, text));

/** The address of a picture of the docs as it is linked there. */
export const pictureOf = (link: string): string | undefined =>
  pictures[`../../../docs/${link.replace(/^\.\//, '')}`];
