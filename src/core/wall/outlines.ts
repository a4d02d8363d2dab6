import { SVGPathData, type SVGCommand } from 'svg-pathdata';
import { readXml, type XmlNode } from './xml';

/** A drawing that can't be read: the message says why. */
export class OutlineError extends Error {
  override name = 'OutlineError';
}

/** Corners of a closed or open line, x to the right and y down, in the units of the drawing. */
export interface DrawnOutline {
  points: [number, number][];
  closed: boolean;
}

/** a, b, c, d, e and f of an affine map, as SVG writes them. */
type Matrix = readonly [number, number, number, number, number, number];

/** Most outlines and corners that are read. */
const mostOutlines = 20000;
const mostCorners = 200000;
/** Pieces that a curve is drawn in. */
const curvePieces = 12;

const identity: Matrix = [1, 0, 0, 1, 0, 0];

const times = ([a, b, c, d, e, f]: Matrix, [g, h, i, j, k, l]: Matrix): Matrix => [
  a * g + c * h,
  b * g + d * h,
  a * i + c * j,
  b * i + d * j,
  a * k + c * l + e,
  b * k + d * l + f,
];

function rotation(degrees: number, x = 0, y = 0): Matrix {
  const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return [cos, sin, -sin, cos, x - cos * x + sin * y, y - sin * x - cos * y];
}

/** Reads the attribute `transform` (SVG 1.1, 7.6). */
function readTransform(text: string | undefined): Matrix {
  let all = identity;
  for (const [, name, list] of (text ?? '').matchAll(/([a-zA-Z]+)\s*\(([^)]*)\)/g)) {
    const n = list
      .split(/[\s,]+/)
      .filter(Boolean)
      .map(Number);
    if (n.some((v) => !Number.isFinite(v))) continue;
    const one: Matrix =
      name === 'matrix' && n.length === 6
        ? (n as unknown as Matrix)
        : name === 'translate'
          ? [1, 0, 0, 1, n[0] ?? 0, n[1] ?? 0]
          : name === 'scale'
            ? [n[0] ?? 1, 0, 0, n[1] ?? n[0] ?? 1, 0, 0]
            : name === 'rotate'
              ? rotation(n[0] ?? 0, n[1], n[2])
              : name === 'skewX'
                ? [1, 0, Math.tan(((n[0] ?? 0) * Math.PI) / 180), 1, 0, 0]
                : name === 'skewY'
                  ? [1, Math.tan(((n[0] ?? 0) * Math.PI) / 180), 0, 1, 0, 0]
                  : identity;
    all = times(all, one);
  }
  return all;
}

const cubic = (a: number, b: number, c: number, d: number, t: number): number =>
  (1 - t) ** 3 * a + 3 * (1 - t) ** 2 * t * b + 3 * (1 - t) * t ** 2 * c + t ** 3 * d;

/** The lines of a path; curves in short pieces. */
function linesOf(path: string): DrawnOutline[] {
  const { commands } = new SVGPathData(path).toAbs().normalizeHVZ(false).normalizeST().qtToC().aToC();
  const lines: DrawnOutline[] = [];
  let at: [number, number] = [0, 0];
  const line = (): DrawnOutline => {
    const last = lines[lines.length - 1];
    if (last && !last.closed) return last;
    // What is drawn after a line was closed begins where that began.
    const next: DrawnOutline = { points: [at], closed: false };
    lines.push(next);
    return next;
  };
  for (const command of commands as SVGCommand[]) {
    switch (command.type) {
      case SVGPathData.MOVE_TO:
        at = [command.x, command.y];
        lines.push({ points: [at], closed: false });
        break;
      case SVGPathData.LINE_TO:
        line().points.push((at = [command.x, command.y]));
        break;
      case SVGPathData.CURVE_TO: {
        const { x1, y1, x2, y2, x, y } = command;
        const [sx, sy] = at;
        const { points } = line();
        for (let k = 1; k <= curvePieces; k++) {
          const t = k / curvePieces;
          points.push([cubic(sx, x1, x2, x, t), cubic(sy, y1, y2, y, t)]);
        }
        at = [x, y];
        break;
      }
      case SVGPathData.CLOSE_PATH: {
        const current = lines[lines.length - 1];
        if (current) {
          current.closed = true;
          at = current.points[0];
        }
        break;
      }
      default:
    }
  }
  return lines;
}

/** The path of an element that draws something; null: it draws nothing that has an outline. */
function pathOf({ name, attributes }: XmlNode): string | null {
  const n = (key: string, otherwise = 0): number => {
    const value = parseFloat(attributes[key] ?? '');
    return Number.isFinite(value) ? value : otherwise;
  };
  const round = (cx: number, cy: number, rx: number, ry: number): string =>
    `M${cx + rx} ${cy}A${rx} ${ry} 0 0 1 ${cx - rx} ${cy}A${rx} ${ry} 0 0 1 ${cx + rx} ${cy}Z`;
  switch (name) {
    case 'path':
      return attributes.d ?? null;
    case 'polygon':
      return attributes.points ? `M${attributes.points}Z` : null;
    case 'polyline':
      return attributes.points ? `M${attributes.points}` : null;
    case 'line':
      return `M${n('x1')} ${n('y1')}L${n('x2')} ${n('y2')}`;
    case 'rect':
      return n('width') > 0 && n('height') > 0
        ? `M${n('x')} ${n('y')}h${n('width')}v${n('height')}h${-n('width')}Z`
        : null;
    case 'circle':
      return n('r') > 0 ? round(n('cx'), n('cy'), n('r'), n('r')) : null;
    case 'ellipse':
      return n('rx') > 0 && n('ry') > 0 ? round(n('cx'), n('cy'), n('rx'), n('ry')) : null;
    default:
      return null;
  }
}

/** Elements that are there to be used by others, and are not drawn where they stand. */
const unseen = new Set(['defs', 'symbol', 'clipPath', 'mask', 'marker', 'pattern']);

/** Without a corner that repeats the one before. */
function cleaned({ points, closed }: DrawnOutline): DrawnOutline {
  const kept = points.filter(
    ([x, y], k) => k === 0 || Math.hypot(x - points[k - 1][0], y - points[k - 1][1]) > 1e-6,
  );
  const [first, last] = [kept[0], kept[kept.length - 1]];
  if (kept.length > 2 && Math.hypot(first[0] - last[0], first[1] - last[1]) < 1e-6)
    return { points: kept.slice(0, -1), closed: true };
  return { points: kept, closed };
}

/**
 * Reads the outlines of an SVG drawing, in the order in which they are drawn: paths, polygons, polylines, lines, rectangles, circles and
 * ellipses, with their transforms. Curves come as short lines. Throws OutlineError.
 */
export function readOutlines(svg: string): DrawnOutline[] {
  let nodes: XmlNode[];
  try {
    nodes = readXml(svg);
  } catch (cause) {
    throw new OutlineError('It is no SVG drawing: its tags are damaged. Export it again.', { cause });
  }
  if (!nodes.some(({ name }) => name === 'svg')) throw new OutlineError('It is no SVG drawing.');
  const outlines: DrawnOutline[] = [];
  let corners = 0;
  const walk = (node: XmlNode, from: Matrix): void => {
    if (unseen.has(node.name)) return;
    const matrix = times(from, readTransform(node.attributes.transform));
    const path = pathOf(node);
    if (path) {
      let lines: DrawnOutline[];
      try {
        lines = linesOf(path);
      } catch (error) {
        throw new OutlineError(`A path of it is damaged (${(error as Error).message}).`);
      }
      for (const { points, closed } of lines) {
        const [a, b, c, d, e, f] = matrix;
        const placed = points.map(([x, y]): [number, number] => [a * x + c * y + e, b * x + d * y + f]);
        const outline = cleaned({ points: placed, closed });
        corners += outline.points.length;
        if (outlines.length >= mostOutlines || corners > mostCorners)
          throw new OutlineError(`It has more than ${mostOutlines} outlines or ${mostCorners} corners.`);
        if (outline.points.length > 1) outlines.push(outline);
      }
    }
    for (const child of node.children) walk(child, matrix);
  };
  for (const node of nodes) walk(node, identity);
  return outlines;
}
