import type { DataPicture } from '../../core/kind/kind';
import type { LetterRequest, Outline } from '../../core/text/outlines';

/** A run of points, x and y in turn; a closed one leads back to its first. */
export interface Run {
  points: readonly number[];
  closed: boolean;
}

export interface StrokeControls {
  form: 'line' | 'polygon' | 'star' | 'ring' | 'points' | 'letters';
  from: readonly [number, number];
  to: readonly [number, number];
  place: readonly [number, number];
  size: number;
  corners: number;
  points: readonly number[];
  closed: boolean;
  text: string;
  font: string;
  spacing: number;
}

/** Straight pieces of a ring. */
const ringPieces = 48;
/** A star's waist, as a share of its points. */
const waist = 0.45;

function around(count: number, radius: (k: number) => number): number[] {
  const points: number[] = [];
  for (let k = 0; k < count; k++) {
    const a = Math.PI / 2 - (2 * Math.PI * k) / count;
    points.push(radius(k) * Math.cos(a), radius(k) * Math.sin(a));
  }
  return points;
}

/** What a stroke follows, in heights from its place. Letters that are on their way give nothing yet. */
export function strokeOf(
  c: StrokeControls,
  letters?: (request: LetterRequest) => readonly Outline[] | null,
): Run[] {
  const radius = c.size / 2;
  switch (c.form) {
    case 'line':
      // Its ends are places on the picture; copies turn about the place.
      return [
        {
          points: [
            c.from[0] - c.place[0],
            c.from[1] - c.place[1],
            c.to[0] - c.place[0],
            c.to[1] - c.place[1],
          ],
          closed: false,
        },
      ];
    case 'polygon':
      return [{ points: around(c.corners, () => radius), closed: true }];
    case 'star':
      return [{ points: around(c.corners * 2, (k) => (k % 2 ? radius * waist : radius)), closed: true }];
    case 'ring':
      return [{ points: around(ringPieces, () => radius), closed: true }];
    case 'points':
      return [{ points: c.points.slice(0, c.points.length - (c.points.length % 2)), closed: c.closed }];
    case 'letters':
      return (letters?.({ text: c.text, font: c.font, spacing: c.spacing }) ?? []).map((outline) => ({
        points: outline.map((v) => v * c.size),
        closed: true,
      }));
  }
}

interface Segment {
  line: [number, number, number, number];
  /** Where it begins and ends along the whole stroke, 0..1. */
  run: [number, number];
}

/** Most segments of a stroke, and how many share a box. */
export const mostSegments = 2048;
const perGroup = 12;
/** Items a row of the picture that a stroke is handed over in. */
export const itemsPerRow = 64;

function segmentsOf(runs: readonly Run[]): Segment[] {
  const lines: { line: Segment['line']; length: number }[] = [];
  for (const { points, closed } of runs) {
    const count = points.length / 2;
    for (let k = 0; k < (closed ? count : count - 1) && lines.length < mostSegments; k++) {
      const next = (k + 1) % count;
      const line: Segment['line'] = [
        points[2 * k],
        points[2 * k + 1],
        points[2 * next],
        points[2 * next + 1],
      ];
      const length = Math.hypot(line[2] - line[0], line[3] - line[1]);
      if (length > 0 && line.every(Number.isFinite)) lines.push({ line, length });
    }
  }
  const whole = lines.reduce((sum, { length }) => sum + length, 0);
  let at = 0;
  return lines.map(({ line, length }) => {
    const from = at / whole;
    at += length;
    return { line, run: [from, at / whole] };
  });
}

/**
 * A stroke as pixels, for a shader: item k stands at column k % 64, row k / 64. Item 0: groups, segments. Two for each
 * group: its box; its first item and how many segments. Two for each segment: its ends; where it begins and ends.
 */
export function strokePixels(runs: readonly Run[]): DataPicture {
  const segments = segmentsOf(runs);
  const groups = Math.ceil(segments.length / perGroup);
  const items = 1 + 2 * groups + 2 * segments.length;
  const height = Math.ceil(items / itemsPerRow);
  const rgba = new Float32Array(4 * itemsPerRow * height);
  rgba.set([groups, segments.length]);
  for (let g = 0; g < groups; g++) {
    const first = g * perGroup;
    const members = segments.slice(first, first + perGroup);
    const xs = members.flatMap(({ line }) => [line[0], line[2]]);
    const ys = members.flatMap(({ line }) => [line[1], line[3]]);
    rgba.set([Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)], 4 * (1 + 2 * g));
    rgba.set([1 + 2 * groups + 2 * first, members.length], 4 * (2 + 2 * g));
  }
  segments.forEach(({ line, run }, k) => {
    const at = 1 + 2 * groups + 2 * k;
    rgba.set(line, 4 * at);
    rgba.set(run, 4 * (at + 1));
  });
  return { width: itemsPerRow, height, rgba, smooth: false };
}
