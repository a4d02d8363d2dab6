import { text } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { laid, lettering, letteringPaint } from '../shared/lettering';

export default imageKind({
  id: 'text',
  label: 'Text',
  summary: 'Typed words in a shipped font, on one or several lines, filled or outlined.',
  words: ['title', 'letters', 'type', 'words', 'font', 'caption', 'name'],
  inputs: {},
  controls: {
    text: text({
      label: 'Text',
      help: 'What is written; each line of it is a line of the picture.',
      default: 'night apiary',
      lines: 3,
    }),
    ...lettering,
  },
  paint: {
    type: 'shader',
    ...letteringPaint,
    sheets: {
      letters: {
        from: 'text',
        lay: (c) => laid(c.text, c),
      },
    },
  },
});
