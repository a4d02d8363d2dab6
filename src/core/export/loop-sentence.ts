/** Steps of 255 that dithering and rounding may make of two equal pictures. */
const unseen = 2;

/** Says how far the frame after a loop is from its first: mean and worst of all channels, in steps of 255. */
export const loopSentence = ({ mean, worst }: { mean: number; worst: number }): string =>
  worst <= unseen
    ? 'The loop meets.'
    : `The loop does not meet: the frame after it differs from the first by ${mean.toFixed(2)} of 255 on average, ${worst} at most.`;
