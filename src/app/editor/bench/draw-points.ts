/** Draws points seen from three-quarters above, fitted to the canvas; nearer ones are larger. `lines` joins pairs. */
export function drawPoints(
  context: CanvasRenderingContext2D,
  positions: Float32Array,
  colour: string,
  options: { lines?: Uint32Array | null; orbit?: number; height?: number } = {},
): void {
  const { width, height } = context.canvas;
  context.clearRect(0, 0, width, height);
  const count = positions.length / 3;
  if (count === 0) return;
  const orbit = options.orbit ?? 0.6;
  const tilt = options.height ?? 0.45;
  const [co, so, ct, st] = [Math.cos(orbit), Math.sin(orbit), Math.cos(tilt), Math.sin(tilt)];
  let reach = 1e-6;
  for (let i = 0; i < positions.length; i += 3)
    reach = Math.max(reach, Math.hypot(positions[i], positions[i + 1], positions[i + 2]));
  const scale = (Math.min(width, height) * 0.46) / reach;
  const xy = new Float32Array(count * 3);
  for (let i = 0; i < count; i++) {
    const x = positions[3 * i];
    const y = positions[3 * i + 1];
    const z = positions[3 * i + 2];
    const across = co * x - so * z;
    const deep = so * x + co * z;
    xy[3 * i] = width / 2 + across * scale;
    xy[3 * i + 1] = height / 2 - (ct * y - st * deep) * scale;
    xy[3 * i + 2] = (st * y + ct * deep) / reach;
  }
  context.fillStyle = context.strokeStyle = colour;
  if (options.lines?.length) {
    context.globalAlpha = 0.4;
    context.lineWidth = 1;
    context.beginPath();
    for (let k = 0; k + 1 < options.lines.length; k += 2) {
      const a = options.lines[k];
      const b = options.lines[k + 1];
      context.moveTo(xy[3 * a], xy[3 * a + 1]);
      context.lineTo(xy[3 * b], xy[3 * b + 1]);
    }
    context.stroke();
  }
  const base = count > 2000 ? 0.6 : count > 300 ? 0.9 : 1.4;
  for (let i = 0; i < count; i++) {
    const near = xy[3 * i + 2];
    context.globalAlpha = 0.45 + 0.5 * Math.min(1, Math.max(0, (near + 1) / 2));
    const r = base * (1 + 0.5 * near);
    context.fillRect(xy[3 * i] - r, xy[3 * i + 1] - r, 2 * r, 2 * r);
  }
  context.globalAlpha = 1;
}
