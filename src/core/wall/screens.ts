import type { EdgeBlend, OutputColour } from '../document/types';
import { usualWhite } from './white-point';

export const noBlend = (): EdgeBlend => ({
  left: 0,
  right: 0,
  top: 0,
  bottom: 0,
  power: 2,
  gamma: 2.2,
  lift: 0,
});

export const plainColour = (): OutputColour => ({
  gain: [1, 1, 1],
  gamma: [1, 1, 1],
  black: [0, 0, 0],
  kelvin: usualWhite,
  brightness: 1,
});
