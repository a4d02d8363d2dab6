/** The white that displays are made for, kelvin. */
export const usualWhite = 6500;

/** CIE x of daylight of a correlated colour temperature, 4000 to 25000 K (CIE 15:2018), and of a Planckian radiator below (Kim et al., 2002). */
function chromaticity(kelvin: number): [number, number] {
  const t = 1000 / kelvin;
  if (kelvin >= 4000) {
    const x =
      kelvin <= 7000
        ? 0.244063 + t * (0.09911 + t * (2.9678 - t * 4.607))
        : 0.23704 + t * (0.24748 + t * (1.9018 - t * 2.0064));
    return [x, -3 * x * x + 2.87 * x - 0.275];
  }
  const x = 0.17991 + t * (0.8776956 - t * (0.2343589 + t * 0.2661239));
  const y =
    kelvin < 2222
      ? -0.20219683 + x * (2.18555832 + x * (-1.3481102 - x * 1.1063814))
      : -0.16748867 + x * (2.09137015 + x * (-1.37418593 - x * 0.9549476));
  return [x, y];
}

/** Linear sRGB of a white of that temperature with a luminance of 1. */
function linearRgb(kelvin: number): [number, number, number] {
  const [x, y] = chromaticity(kelvin);
  const [X, Z] = [x / y, (1 - x - y) / y];
  return [
    3.2404542 * X - 1.5371385 - 0.4985314 * Z,
    -0.969266 * X + 1.8760108 + 0.041556 * Z,
    0.0556434 * X - 0.2040259 + 1.0572252 * Z,
  ];
}

/** What red, green and blue are multiplied by in linear light to make 6500 K that white: the largest is 1, none is negative. */
export function whiteGains(kelvin: number): [number, number, number] {
  const usual = linearRgb(usualWhite);
  const gains = linearRgb(kelvin).map((value, k) => Math.max(0, value / usual[k]));
  const most = Math.max(...gains);
  return [gains[0] / most, gains[1] / most, gains[2] / most];
}
