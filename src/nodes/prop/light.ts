import { choice, colour, number, vector } from '../../core/kind/controls';
import { propKind } from '../../core/kind/kind';

export default propKind({
  id: 'light',
  label: 'Light',
  summary: 'A sun, a point of light, or light from everywhere.',
  words: ['lamp', 'sun', 'ambient', 'point light', 'shine', 'illuminate'],
  inputs: {},
  controls: {
    form: choice({
      label: 'Form',
      help: 'How the light spreads.',
      options: { sun: 'Sun', point: 'Point', ambient: 'From everywhere' },
      default: 'sun',
    }),
    colour: colour({ label: 'Colour', help: 'Colour of the light.', default: [1, 0.95, 0.88, 1] }),
    strength: number({ label: 'Strength', help: 'Brightness.', default: 1, range: [0, 3], min: 0 }),
    place: vector({
      label: 'Place',
      help: 'Where it stands; a sun shines from there towards the middle.',
      default: [0.6, 1, 0.8],
      range: [-2, 2],
      shownIf: (c) => c.form !== 'ambient',
    }),
    reach: number({
      label: 'Reach',
      help: 'Distance at which half its strength is left.',
      default: 1,
      range: [0.1, 4],
      min: 0.001,
      shownIf: (c) => c.form === 'point',
    }),
  },
  describe: ({ controls: c }) => ({
    type: 'light',
    shape: c.form,
    colour: c.colour,
    strength: c.strength,
    place: c.place,
    reach: c.reach,
  }),
});
