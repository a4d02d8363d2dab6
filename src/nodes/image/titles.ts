import { number, text } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { readTitles, titleAt, type TimedTitle } from '../../core/text/titles';
import { laid, lettering, letteringPaint } from '../shared/lettering';

/** The texts that were read last: they are asked for each frame. */
const known = new Map<string, readonly TimedTitle[]>();
const mostKnown = 50;

function titlesOf(source: string): readonly TimedTitle[] {
  let titles = known.get(source);
  if (!titles) {
    titles = readTitles(source);
    if (known.size >= mostKnown) known.clear();
    known.set(source, titles);
  }
  return titles;
}

export default imageKind({
  id: 'titles',
  label: 'Titles',
  summary: 'Words that come and go at their times, as an .srt or .vtt file holds them.',
  words: ['subtitles', 'captions', 'srt', 'vtt', 'lyrics', 'text', 'timed'],
  inputs: {},
  controls: {
    titles: text({
      label: 'Titles',
      help: 'Times, and below each what is read then; a blank line ends a title.',
      default:
        '00:00:00,000 --> 00:00:04,000\nnight apiary\n\n00:00:04,000 --> 00:00:08,000\nthe hives are open',
      lines: 6,
      opens: '.srt,.vtt,.txt',
    }),
    offset: number({
      label: 'Offset',
      help: 'Seconds by which all of it comes later; below 0 earlier.',
      default: 0,
      range: [-10, 10],
      unit: 's',
    }),
    every: number({
      label: 'Again after',
      help: 'Seconds after which the titles begin again; 0: they are seen once.',
      default: 0,
      range: [0, 60],
      min: 0,
      unit: 's',
    }),
    ...lettering,
  },
  moves: () => true,
  paint: {
    type: 'shader',
    ...letteringPaint,
    sheets: {
      letters: {
        from: 'text',
        lay: (c, seconds) => {
          const at = seconds - c.offset;
          return laid(titleAt(titlesOf(c.titles), c.every > 0 && at > 0 ? at % c.every : at), c);
        },
      },
    },
  },
});
