import { numbers, text, vector } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';

export default signalKind({
  id: 'values',
  label: 'Values',
  summary: 'Numbers set by hand: three dials and a list.',
  words: [
    'constant',
    'number',
    'list',
    'fader',
    'slider',
    'dial',
    'hand',
    'step sequencer',
    'sequencer',
    'pattern',
  ],
  inputs: {},
  controls: {
    dials: vector({
      label: 'Dials',
      help: 'Three values for the lanes x, y and z; used while the list is empty.',
      default: [0, 0, 0],
      range: [0, 1],
    }),
    list: numbers({
      label: 'List',
      help: 'As many values as you like, a sample each; empty uses the dials.',
      default: [],
    }),
    lane: text({ label: 'Lane', help: 'Name of the lane the list gives.', default: 'value' }),
  },
  naturalRange: (c) => (c.list.length ? [Math.min(0, ...c.list), Math.max(1, ...c.list)] : [0, 1]),
  moves: () => false,
  compute({ controls: c, out }) {
    if (c.list.length) {
      out.layout([c.lane || 'value'], c.list.length)[0].set(c.list);
      return;
    }
    const lanes = out.layout(['x', 'y', 'z'], 1);
    lanes.forEach((lane, k) => (lane[0] = c.dials[k]));
  },
});
