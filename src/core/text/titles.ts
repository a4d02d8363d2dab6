/** A title that is seen for a while. */
export interface TimedTitle {
  /** Seconds. */
  from: number;
  to: number;
  text: string;
}

const times =
  /^\s*(?:(\d+):)?(\d{1,2}):(\d{2})[.,](\d{1,3})\s*-->\s*(?:(\d+):)?(\d{1,2}):(\d{2})[.,](\d{1,3})/;

const seconds = (hours: string | undefined, minutes: string, whole: string, part: string): number =>
  Number(hours ?? 0) * 3600 + Number(minutes) * 60 + Number(whole) + Number(part.padEnd(3, '0')) / 1000;

/** Words as they are read: without tags, entities as the letters they stand for. */
const plain = (line: string): string =>
  line
    .replace(/<[^>]*>/g, '')
    .replaceAll('&lt;', '<')
    .replaceAll('&gt;', '>')
    .replaceAll('&nbsp;', ' ')
    .replaceAll('&amp;', '&');

/**
 * Reads timed titles, SubRip (.srt) or WebVTT (.vtt), in the order of their times. Notes, styles and numbers of titles are left out. Throws
 * RangeError that names the line at which a title ends before it begins, or a text that holds no times at all.
 */
export function readTitles(text: string): TimedTitle[] {
  const titles: TimedTitle[] = [];
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/);
  for (let k = 0; k < lines.length; k++) {
    const found = times.exec(lines[k]);
    if (!found) continue;
    const [, h1, m1, s1, p1, h2, m2, s2, p2] = found;
    const [from, to] = [seconds(h1, m1, s1, p1), seconds(h2, m2, s2, p2)];
    if (to <= from) throw new RangeError(`Line ${k + 1}: the title ends before it begins.`);
    const words: string[] = [];
    while (k + 1 < lines.length && lines[k + 1].trim() !== '') words.push(plain(lines[++k]));
    titles.push({ from, to, text: words.join('\n') });
  }
  if (titles.length === 0 && text.trim() !== '')
    throw new RangeError(
      'There are no times in it, as 00:00:01,000 --> 00:00:04,000. Use an .srt or .vtt file.',
    );
  return titles.sort((a, b) => a.from - b.from);
}

/** What is to be read at a time: all titles that are up, one below the other. */
export const titleAt = (titles: readonly TimedTitle[], at: number): string =>
  titles
    .filter(({ from, to }) => at >= from - 1e-6 && at < to - 1e-6)
    .map(({ text }) => text)
    .join('\n');
