import { Sketch } from '../sketch';

/** Curves to a surface: three rings that drift apart, one the other way; a skin over them, drawn as diamonds. */
export function silkSkin(): Sketch {
  const s = new Sketch('s16', 'Silk Skin', [1640, 60]);
  s.add('drift', 'Ways', [0, 520], { lanes: 3, speed: 0.24, octaves: 2, seed: 9 });
  s.add('oscillator', 'Breath', [190, 520], { rate: 0.11 });
  const rings = [
    ['Left Ring', 0.5, 1],
    ['Middle Ring', 0.86, -1],
    ['Right Ring', 0.5, 1],
  ] as const;
  const loft = s.add('loft', 'Skin', [610, 60], { along: 40, across: 22, between: 'smooth' });
  rings.forEach(([name, size, way], k) => {
    const ring = s.add('ring', `${name} of Points`, [0, k * 170 - 40], { size, points: 12 });
    // The size breathes before the ring is turned and moved: what comes after works on the breathing one.
    const pulse = s.add('place', `${name} Breathes`, [190, k * 170 - 40]);
    s.wire(ring, pulse, 'shape');
    s.formula(pulse, 'scale', `1 + breath * ${(0.1 * way).toFixed(2)}`);
    const apart = s.add('place', name, [400, k * 170 - 40]);
    s.wire(pulse, apart, 'shape');
    const axis = ['x', 'y', 'z'][k];
    s.formula(apart, 'move.z', `${((k - 1) * 0.55).toFixed(2)} + ways.${axis} * ${(0.12 * way).toFixed(2)}`);
    s.formula(
      apart,
      `move.${k === 1 ? 'y' : 'x'}`,
      `ways.${k === 1 ? 'y' : 'x'} * ${(0.22 * way).toFixed(2)}`,
    );
    s.formula(apart, 'turn.z', `time * ${(9 * way).toFixed(1)} + ways.${axis} * 40`);
    s.formula(apart, 'turn.x', `ways.${axis} * ${(26 * way).toFixed(1)}`);
    s.wire(apart, loft, 'curves');
  });
  const twist = s.add('twist', 'Wrung', [790, 60], { axis: 'z' });
  s.wire(loft, twist, 'shape');
  s.swing(twist, 'turn', { amount: 70, rate: 0.05 });
  const cells = s.add('struts', 'Diamonds', [980, -40], { form: 'diamonds', gap: 0.16 });
  const bars = s.add('strands', 'Through Corresponding Points', [980, 130], { which: 'columns', smooth: 1 });
  s.wire(twist, cells, 'shape');
  s.wire(twist, bars, 'shape');
  const silk = s.add('body', 'Silk', [1160, -40], {
    colour: [1, 0.56, 0.3, 1],
    shine: 0.7,
    gloss: 0.45,
    diffuse: 0.85,
    fog: 0.75,
    fogNear: 1.5,
    fogFar: 3.2,
    fogColour: [0.1, 0.05, 0.16, 1],
  });
  const threads = s.add('body', 'Threads', [1160, 130], {
    draw: 'lines',
    shading: 'flat',
    blending: 'add',
    solid: false,
    colour: [0.5, 0.95, 0.9, 0.6],
    width: 1.3,
  });
  s.wire(cells, silk, 'shape');
  s.wire(bars, threads, 'shape');
  const lamp = s.add('light', 'Lamp', [1160, 300], {
    form: 'spot',
    place: [-1.2, 1.4, 1.2],
    angle: 60,
    reach: 2.2,
    colour: [1, 0.86, 0.62, 1],
    strength: 4.2,
    soft: 0.4,
    shadow: 0.8,
  });
  const glass = s.add('light', 'Glass', [1160, 430], {
    form: 'point',
    place: [1.2, -0.5, 0.4],
    colour: [0.25, 0.72, 0.85, 1],
    strength: 3,
    reach: 0.9,
  });
  const dim = s.add('light', 'Night', [980, 430], {
    form: 'ambient',
    colour: [0.5, 0.4, 0.7, 1],
    strength: 0.5,
  });
  const camera = s.add('camera', 'Camera', [980, 300], { orbit: 52, height: 18, distance: 1.75, view: 36 });
  s.swing(camera, 'orbit', { amount: 24, rate: 0.021 });
  const shot = s.add('shot', 'Shot', [1340, 60], { background: [0.05, 0.03, 0.07, 1] });
  for (const prop of [silk, threads, lamp, glass, dim, camera]) s.wire(prop, shot, 'props');
  const shine = s.add('glow', 'Shine', [1490, 60], { strength: 0.5, threshold: 0.55, reach: 0.08 });
  s.wire(shot, shine, 'picture');
  s.wire(shine, s.out, 'picture');
  return s;
}
