import { colour, number } from './controls';

/** How the surface of a field looks: the controls that every solid field has. */
export const fieldLook = {
  colour: colour({
    label: 'Colour',
    help: 'Of its surface; colours melt with the fields.',
    default: [0.95, 0.72, 0.34, 1],
  }),
  shine: number({
    label: 'Shine',
    help: 'How much of the light it mirrors.',
    default: 0.3,
    range: [0, 1],
    min: 0,
    max: 4,
  }),
  ownLight: number({
    label: 'Own light',
    help: 'How much it shines by itself.',
    default: 0,
    range: [0, 3],
    min: 0,
  }),
};
