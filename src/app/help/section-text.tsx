import Markdown from 'react-markdown';
import remarkGfm from 'remark-gfm';
import { helpSections, pictureOf } from './pages';
import { sectionOfLink, type Section } from './sections';

/** A section and those under it, up to the next of its own depth: what one reads at one go. */
function wholeOf(section: Section): readonly Section[] {
  const from = helpSections.indexOf(section);
  const after = helpSections.findIndex(
    ({ page, depth }, k) => k > from && (page !== section.page || depth <= section.depth),
  );
  // The title of a page leads to what stands before its first heading: the rest is in the contents.
  return section.depth === 1 ? [section] : helpSections.slice(from, after < 0 ? undefined : after);
}

/** Reads a section of the docs; links between them stay in Help. */
export default function SectionText({ section, onGo }: { section: Section; onGo(id: string): void }) {
  return (
    <article className="note help max-w-prose p-5 leading-relaxed" data-section={section.id}>
      {wholeOf(section).map(({ id, title, text }, k) => (
        <section key={id}>
          {k === 0 ? (
            <h2 className="mb-2 text-xl font-semibold">{title}</h2>
          ) : (
            <h3 className="mt-5 mb-1 text-base font-semibold">{title}</h3>
          )}
          <Markdown
            remarkPlugins={[remarkGfm]}
            components={{
              a: ({ href = '', children }) => {
                const to = sectionOfLink(helpSections, section.page, href);
                return to ? (
                  <button type="button" className="link link-primary" onClick={() => onGo(to.id)}>
                    {children}
                  </button>
                ) : (
                  <span>{children}</span>
                );
              },
              img: ({ src = '', alt }) => (
                <img src={pictureOf(String(src))} alt={alt} className="my-3 w-full rounded border edge" />
              ),
            }}
          >
            {text}
          </Markdown>
        </section>
      ))}
    </article>
  );
}
