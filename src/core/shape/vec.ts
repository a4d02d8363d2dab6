export const sub = (a: ArrayLike<number>, b: ArrayLike<number>): number[] => [
  a[0] - b[0],
  a[1] - b[1],
  a[2] - b[2],
];
export const cross = (a: readonly number[], b: readonly number[]): number[] => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
export const unit = (v: readonly number[]): number[] => {
  const length = Math.hypot(...v) || 1;
  return v.map((k) => k / length);
};
export const towards = (a: ArrayLike<number>, b: ArrayLike<number>, t: number): number[] => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
];
