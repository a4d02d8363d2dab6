/** A part of a page of the docs, from its heading to the next. */
export interface Section {
  /** Page and heading, as a link names them: `guide#time-and-loops`; the page alone for its first. */
  id: string;
  page: string;
  title: string;
  /** 1 for the title of the page. */
  depth: number;
  /** Markdown below the heading. */
  text: string;
}

/** A heading as links name it: in lower case, without punctuation, with hyphens for spaces. */
const anchorOf = (title: string): string =>
  title
    .toLowerCase()
    .replace(/[^\p{L}\p{N}\s-]/gu, '')
    .trim()
    .replace(/\s+/g, '-');

/** Headings as they are read, without marks of Markdown. */
const plain = (title: string): string => title.replace(/\[([^\]]*)\]\([^)]*\)/g, '$1').replace(/[*_`]/g, '');

/** Parts a page by its headings; lines of code that begin like one are none. */
export function sectionsOf(page: string, markdown: string): Section[] {
  const sections: Section[] = [];
  let isCode = false;
  for (const line of markdown.split('\n')) {
    if (line.startsWith('```')) isCode = !isCode;
    const heading = isCode ? null : /^(#{1,4}) (.+)$/.exec(line);
    if (heading) {
      const title = plain(heading[2]);
      const id = sections.length ? `${page}#${anchorOf(title)}` : page;
      sections.push({ id, page, title, depth: heading[1].length, text: '' });
    } else if (sections.length) sections[sections.length - 1].text += `${line}\n`;
  }
  return sections.map((section) => ({ ...section, text: section.text.trim() }));
}

/**
 * The section that a link of the docs leads to: `modules.md#controls`, `#words`. A page that is not there, or a heading that
 * is none, gives null.
 */
export function sectionOfLink(sections: readonly Section[], page: string, link: string): Section | null {
  const parts = /^(?:\.\/)?(?:([\w-]+)\.md)?(?:#(.+))?$/.exec(link);
  if (!parts || link === '') return null;
  const to = parts[1] ?? page;
  const id = parts[2] ? `${to}#${parts[2]}` : to;
  return sections.find((section) => section.id === id) ?? null;
}
