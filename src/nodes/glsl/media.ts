import { choice } from '../../core/kind/controls';

/** How a picture of its own proportions fills the frame. */
export const fit = choice({
  label: 'Fit',
  help: 'Cover fills the frame and cuts what is too much, contain shows all, stretch fits both sides.',
  options: { cover: 'Cover', contain: 'Contain', stretch: 'Stretch', own: 'Its own pixels' },
  default: 'cover',
});

/** Where a frame's place lies in a picture of `size` pixels; outside 0..1 it shows nothing. how: as the control Fit. */
export const fitGlsl = `
vec2 fitPlace(vec2 p, vec2 size, float aspect, vec2 pixel, int how) {
  if (how == 2) return p;
  if (how == 3) return (p - 0.5) / (pixel * size) + 0.5;
  float own = size.x / max(size.y, 1.0);
  bool wide = own > aspect;
  if (how == 1) wide = !wide;
  return (p - 0.5) * (wide ? vec2(aspect / own, 1.0) : vec2(1.0, own / aspect)) + 0.5;
}
float insidePlace(vec2 q) { return step(0.0, q.x) * step(q.x, 1.0) * step(0.0, q.y) * step(q.y, 1.0); }
`;
