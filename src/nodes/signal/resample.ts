import { choice, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { rowsLike } from '../../core/signal/rows';
import { spreadInto } from '../../core/signal/spread';

export default signalKind({
  id: 'resample',
  label: 'Resample',
  summary: 'Gives a signal another number of samples.',
  words: ['stretch', 'count', 'length', 'trim', 'repeat', 'samples', 'resize'],
  example: { feed: { kind: 'scatter', controls: { samples: 5 } } },
  inputs: { in: { label: 'In', help: 'The values to spread over the new count.', carries: 'signal' } },
  controls: {
    samples: whole({
      label: 'Samples',
      help: 'How many there will be.',
      default: 16,
      range: [1, 256],
      min: 1,
      max: 1000000,
    }),
    form: choice({
      label: 'Form',
      help: 'Stretched and mixed, stretched in steps, or taken one by one and then repeated, mirrored or held.',
      options: { stretch: 'Stretch', steps: 'In steps', repeat: 'Repeat', mirror: 'Mirror', hold: 'Hold' },
      default: 'stretch',
    }),
  },
  naturalRange: () => [-1, 1],
  moves: () => false,
  compute({ controls: c, inputs, out }) {
    for (const { from, into } of rowsLike(inputs.in, out, c.samples)) {
      if (c.form !== 'steps') spreadInto(into, from, c.form);
      else
        for (let i = 0; i < into.length; i++)
          into[i] = from[Math.floor((i * from.length) / into.length)] ?? 0;
    }
  },
});
