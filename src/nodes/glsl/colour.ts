import { choice } from '../../core/kind/controls';

/** Straight colour of a premultiplied one, and back. */
export const alphaGlsl = `
vec4 straight(vec4 c) { return vec4(c.rgb * (c.a > 0.0 ? 1.0 / c.a : 0.0), c.a); }
vec4 premultiplied(vec4 c) { return vec4(c.rgb * c.a, c.a); }
`;

/** What a place outside 0..1 reads. how: 0 nothing, 1 hold, 2 repeat, 3 mirror. The last number is 0 where nothing is. */
export const outsideGlsl = `
vec3 outsidePlace(vec2 q, int how) {
  if (how == 0) return vec3(q, step(0.0, q.x) * step(q.x, 1.0) * step(0.0, q.y) * step(q.y, 1.0));
  if (how == 1) return vec3(clamp(q, 0.0, 1.0), 1.0);
  if (how == 2) return vec3(fract(q), 1.0);
  return vec3(1.0 - abs(mod(q, 2.0) - 1.0), 1.0);
}
`;

/** Brightness as the eye weighs it (Rec. 709). */
export const brightnessGlsl = `
float brightness(vec3 c) { return dot(c, vec3(0.2126, 0.7152, 0.0722)); }
`;

/** One number of a colour: 0 brightness, 1 red, 2 green, 3 blue, 4 alpha. */
export const channelGlsl = `
float channelOf(vec4 c, int which) {
  if (which == 0) return dot(c.rgb, vec3(0.2126, 0.7152, 0.0722));
  if (which == 1) return c.r;
  if (which == 2) return c.g;
  if (which == 3) return c.b;
  return c.a;
}
`;

/** The options that go with channelOf. */
export const channelOptions = {
  brightness: 'Brightness',
  red: 'Red',
  green: 'Green',
  blue: 'Blue',
  alpha: 'Alpha',
} as const;

const outsideOptions = {
  nothing: 'Nothing',
  hold: 'Hold the edge',
  repeat: 'Repeat',
  mirror: 'Mirror',
} as const;

/** The control that goes with outsidePlace. */
export const outside = (
  home: keyof typeof outsideOptions,
  help = 'What is seen beyond the edge of the picture.',
) => choice({ label: 'Outside', help, options: outsideOptions, default: home });

/** Where along its colours a gradient is read. how: 0 hold, 1 repeat, 2 mirror. */
export const endsGlsl = `
float endsPlace(float t, int how) {
  if (how == 0) return clamp(t, 0.0, 1.0);
  if (how == 1) return fract(t);
  return 1.0 - abs(mod(t, 2.0) - 1.0);
}
`;

/** The control that goes with endsPlace. */
export const ends = choice({
  label: 'Ends',
  help: 'What comes after the last colour.',
  options: { hold: 'Hold', repeat: 'Repeat', mirror: 'Mirror' },
  default: 'hold',
});
