import { Sketch } from '../sketch';

/** Seconds of the loop: sixteen beats at 96 a minute. */
const slatsLoopSeconds = 10;

/** Two crossed families of slats that move by whole periods: after the loop the first picture comes again. */
export function shadeSlats(): Sketch {
  const s = new Sketch('s5', 'Shade Slats', [1150, 60]);
  s.scene.loop.length = 16;
  const slats = s.add('stripes', 'Slats', [-300, 0], {
    families: 'two',
    count: [7, 3],
    share: [0.5, 0.34],
    softness: 0.26,
    crossing: 76,
    periods: 2,
    loop: slatsLoopSeconds,
    ink: [0.96, 0.62, 0.2, 1],
    second: [0.24, 0.62, 0.58, 1],
    ground: [0.035, 0.02, 0.018, 1],
    burn: 0.85,
    light: 0.92,
    lightTurn: 62,
    lightWidth: 0.85,
    turn: -14,
  });
  // To and fro once in the loop: a whole cycle in sixteen beats meets itself at the end.
  s.swing(slats, 'turn', { amount: 9, shape: 'sine', rate: 16, unit: 'beats' });
  s.swing(slats, 'lightTurn', { amount: 24, shape: 'sine', rate: 16, unit: 'beats', phase: 0.25 });
  s.swing(slats, 'share.x', { amount: 0.12, shape: 'triangle', rate: 8, unit: 'beats' });
  const dust = s.add('noise', 'Dust', [-300, 200], {
    period: 0.8,
    octaves: 3,
    rate: 0.2,
    loop: slatsLoopSeconds,
    channels: 'three',
    seed: 3,
  });
  const warp = s.add('displace', 'Uneven Wood', [-80, 0], { push: 0.014, outside: 'mirror' });
  s.wire(slats, warp, 'picture');
  s.wire(dust, warp, 'map');
  const beams = s.add('blend', 'Dust in the Light', [140, 0], { mode: 'softlight', amount: 0.7 });
  s.wire(warp, beams, 'picture');
  s.wire(dust, beams, 'over');
  const shine = s.add('glow', 'Shine', [360, 0], {
    threshold: 0.55,
    strength: 0.7,
    reach: 0.25,
    tint: [1, 0.86, 0.66, 1],
  });
  s.wire(beams, shine, 'picture');
  const look = s.add('lut', 'Late Amber', [580, 0], { file: 'shipped:late-amber.cube', amount: 0.45 });
  s.wire(shine, look, 'picture');
  const tone = s.add('tone', 'Tone', [800, 0]);
  s.wire(look, tone, 'picture');
  s.wire(tone, s.out, 'picture');
  return s;
}
