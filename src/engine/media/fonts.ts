import poster from '@fontsource/bebas-neue/files/bebas-neue-latin-400-normal.woff?url';
import serif400 from '@fontsource/fraunces/files/fraunces-latin-400-normal.woff?url';
import serif600 from '@fontsource/fraunces/files/fraunces-latin-600-normal.woff?url';
import serif700 from '@fontsource/fraunces/files/fraunces-latin-700-normal.woff?url';
import sans400 from '@fontsource/instrument-sans/files/instrument-sans-latin-400-normal.woff?url';
import sans600 from '@fontsource/instrument-sans/files/instrument-sans-latin-600-normal.woff?url';
import sans700 from '@fontsource/instrument-sans/files/instrument-sans-latin-700-normal.woff?url';
import mono400 from '@fontsource/jetbrains-mono/files/jetbrains-mono-latin-400-normal.woff?url';
import mono600 from '@fontsource/jetbrains-mono/files/jetbrains-mono-latin-600-normal.woff?url';
import mono700 from '@fontsource/jetbrains-mono/files/jetbrains-mono-latin-700-normal.woff?url';
import type { Font } from 'opentype.js';
import type { LetterRequest, Outline } from '../../core/text/outlines';
import { fonts, isFont, type FontName } from '../../core/text/layout';
import { outlinesOf } from '../../core/text/outlines';

const urls: Record<FontName, Partial<Record<400 | 600 | 700, string>>> = {
  sans: { 400: sans400, 600: sans600, 700: sans700 },
  serif: { 400: serif400, 600: serif600, 700: serif700 },
  poster: { 400: poster },
  mono: { 400: mono400, 600: mono600, 700: mono700 },
};

/** Fonts whose files can't be loaded, by the names that stand in shows: their letters are drawn by another. */
export async function missingFonts(): Promise<FontName[]> {
  const isThere = (url: string): Promise<boolean> =>
    fetch(url).then(
      ({ ok }) => ok,
      () => false,
    );
  const names = Object.keys(urls) as FontName[];
  const all = await Promise.all(
    names.map(async (name) => (await Promise.all(Object.values(urls[name]).map(isThere))).every(Boolean)),
  );
  return names.filter((_, k) => !all[k]);
}

/** The letters of the shipped fonts, as the browser draws them and as outlines. */
export class Fonts {
  ready = false;
  private loading: Promise<void> | null = null;
  private readonly parsed = new Map<FontName, Font | 'loading'>();
  private readonly drawn = new Map<string, readonly Outline[]>();
  private readonly underWay = new Set<Promise<void>>();

  constructor(private readonly arrived: () => void) {}

  /** Has all fonts loaded for drawing; `ready` says when. */
  load(): Promise<void> {
    this.loading ??= this.loadAll();
    return this.loading;
  }

  private async loadAll(): Promise<void> {
    // A worker has its own set, a page keeps it with its document.
    const set = (self as unknown as { fonts?: FontFaceSet }).fonts ?? document.fonts;
    const faces = Object.entries(urls).flatMap(([name, weights]) =>
      Object.entries(weights).map(
        ([weight, url]) => new FontFace(fonts[name as FontName], `url(${url})`, { weight }),
      ),
    );
    for (const face of faces) set.add(face);
    // Without one of them, its texts are drawn by another of the browser's: better than none.
    await Promise.allSettled(faces.map((face) => face.load()));
    this.ready = true;
    this.arrived();
  }

  /** Outlines of a line of text; null while its font is on its way. */
  letters(request: LetterRequest): readonly Outline[] | null {
    const name = isFont(request.font) ? request.font : 'sans';
    const key = `${name} ${request.spacing} ${request.text}`;
    const known = this.drawn.get(key);
    if (known) return known;
    const font = this.parsed.get(name);
    if (font === undefined) {
      this.parsed.set(name, 'loading');
      const work = this.parseFont(name).finally(() => this.underWay.delete(work));
      this.underWay.add(work);
    }
    if (font === undefined || font === 'loading') return null;
    const outlines = outlinesOf(font, request.text, request.spacing);
    if (this.drawn.size > 64) this.drawn.clear();
    this.drawn.set(key, outlines);
    return outlines;
  }

  private async parseFont(name: FontName): Promise<void> {
    // Most shows have no outlines of letters: what reads them is fetched with the first.
    const [{ parse }, response] = await Promise.all([
      import('opentype.js'),
      fetch(urls[name][700] ?? urls[name][400]!),
    ]);
    this.parsed.set(name, parse(await response.arrayBuffer()));
    this.arrived();
  }

  /** Resolves when nothing is on its way. */
  async settled(): Promise<void> {
    await Promise.all([...this.underWay, this.loading]);
  }
}
