import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { sectionOfLink, sectionsOf } from './sections';

const page = `# Guide

To begin with.

## A *first* look, and \`/\`

Words.

\`\`\`
# no heading
\`\`\`

### [Under](x.md) it

More.
`;

describe('a page of the docs', () => {
  const sections = sectionsOf('guide', page);
  test('is parted by its headings, code left alone', () =>
    expect(sections).toEqual([
      { id: 'guide', page: 'guide', title: 'Guide', depth: 1, text: 'To begin with.' },
      {
        id: 'guide#a-first-look-and',
        page: 'guide',
        title: 'A first look, and /',
        depth: 2,
        text: 'Words.\n\n```\n# no heading\n```',
      },
      { id: 'guide#under-it', page: 'guide', title: 'Under it', depth: 3, text: 'More.' },
    ]));
  test('links lead to sections of this page and of others', () => {
    const all = [...sections, ...sectionsOf('wall', '# The wall\n## Screens')];
    expect(sectionOfLink(all, 'guide', 'wall.md')?.title).toBe('The wall');
    expect(sectionOfLink(all, 'guide', 'wall.md#screens')?.title).toBe('Screens');
    expect(sectionOfLink(all, 'guide', '#under-it')?.title).toBe('Under it');
    for (const link of ['', 'none.md', '#none', 'https://a.test', '../README.md'])
      expect(sectionOfLink(all, 'guide', link)).toBeNull();
  });
  test('an empty page has no sections', () => expect(sectionsOf('x', 'no heading')).toEqual([]));
});

describe('the docs that ship', () => {
  const docs = path.resolve('docs');
  const pages = readdirSync(docs)
    .filter((name) => name.endsWith('.md'))
    .map((name) => name.slice(0, -3));
  const text = (name: string): string => readFileSync(path.join(docs, `${name}.md`), 'utf8');
  const all = pages.flatMap((name) => sectionsOf(name, text(name)));
  test('no two sections of a page have one name', () => {
    const ids = all.filter(({ page: of }) => of !== 'node-kinds').map(({ id }) => id);
    expect(ids.filter((id, k) => ids.indexOf(id) !== k)).toEqual([]);
  });
  test.each(pages)('links of %s lead somewhere', (name) => {
    const links = [...text(name).matchAll(/\]\(((?:[\w-]+\.md)?(?:#[^)]*)?)\)/g)].map(([, link]) => link);
    expect(links.filter((link) => link && !sectionOfLink(all, name, link))).toEqual([]);
  });
});
