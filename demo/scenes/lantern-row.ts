import { Sketch } from '../sketch';

/** Glowing strokes: beams round a centre, an outline and letters that grow, run and fade, added over black. */
export function lanternRow(): Sketch {
  const s = new Sketch('s6', 'Lantern Row', [1500, 60]);
  const wicks = s.add('beam', 'Wicks', [-300, 0], {
    form: 'line',
    from: [0.05, 0.1],
    to: [0.33, 0.1],
    place: [0, 0.1],
    taper: 0.15,
    core: 0.011,
    halo: 0.8,
    reach: 0.1,
    copies: 12,
    motion: 'grow',
    span: 5,
    delay: 5 / 12,
    colours: [
      { at: 0, colour: [1, 0.62, 0.22, 1] },
      { at: 0.5, colour: [1, 0.36, 0.3, 1] },
      { at: 1, colour: [1, 0.8, 0.4, 1] },
    ],
  });
  s.swing(wicks, 'turn', { amount: 30, rate: 0.05 });
  const frame = s.add('beam', 'Frame', [-300, 200], {
    form: 'polygon',
    corners: 6,
    size: 0.74,
    place: [0, 0.1],
    core: 0.007,
    halo: 0.55,
    reach: 0.08,
    lit: [0, 0.42],
    motion: 'run',
    span: 7.5,
    copies: 2,
    copyTurn: 180,
    colours: [
      { at: 0, colour: [0.36, 0.8, 0.78, 1] },
      { at: 1, colour: [1, 0.7, 0.3, 1] },
    ],
  });
  s.formula(frame, 'turn', 'time * 6');
  const words = s.add('beam', 'Lantern Row Sign', [-300, 400], {
    form: 'letters',
    text: 'LANTERN ROW',
    font: 'poster',
    spacing: 0.55,
    size: 0.115,
    place: [0, -0.36],
    core: 0.0045,
    halo: 0.5,
    reach: 0.05,
    lit: [0, 0.93],
    motion: 'run',
    span: 9,
    colours: [
      { at: 0, colour: [1, 0.66, 0.28, 1] },
      { at: 1, colour: [1, 0.66, 0.28, 1] },
    ],
  });
  const lamp = s.add('blend', 'Lamp', [-60, 60], { mode: 'add' });
  s.wire(wicks, lamp, 'picture');
  s.wire(frame, lamp, 'over');
  // Smaller lamps to both sides, as often as the screen is wide.
  const row = s.add('transform', 'Row', [160, 200], {
    scale: 0.36,
    stretch: [0.75, 1],
    outside: 'repeat',
    limited: true,
    repeats: [3, 0],
    move: [0, 0.02],
  });
  s.wire(lamp, row, 'picture');
  const street = s.add('blend', 'Street', [380, 60], { mode: 'add', amount: 0.5 });
  s.wire(lamp, street, 'picture');
  s.wire(row, street, 'over');
  const sign = s.add('blend', 'With the Sign', [600, 60], { mode: 'add' });
  s.wire(street, sign, 'picture');
  s.wire(words, sign, 'over');
  const shine = s.add('glow', 'Shine', [820, 60], {
    threshold: 0.3,
    strength: 0.8,
    reach: 0.3,
    tint: [1, 0.8, 0.6, 1],
  });
  s.wire(sign, shine, 'picture');
  const tone = s.add('tone', 'Tone', [1040, 60]);
  s.wire(shine, tone, 'picture');
  const grain = s.add('grain', 'Against Bands', [1260, 60], { strength: 0.03 });
  s.wire(tone, grain, 'picture');
  s.wire(grain, s.out, 'picture');
  return s;
}
