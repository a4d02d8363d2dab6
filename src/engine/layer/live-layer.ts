import {
  AddEquation,
  BufferGeometry,
  CustomBlending,
  DoubleSide,
  InterleavedBuffer,
  InterleavedBufferAttribute,
  Mesh,
  OneFactor,
  OneMinusSrcAlphaFactor,
  OrthographicCamera,
  Scene,
  type RawShaderMaterial,
  type Texture,
} from 'three';
import type { Gpu } from '../gpu/gpu';
import { glanceNodes } from '../output/glance';
import type { ScenePlayer } from '../playback/scene-player';
import type { LayerFace, LayerLayout, NodeGlance } from '../protocol/protocol';
import { alongPlaces, flatten } from './curve';
import { FaceSheet } from './face-sheet';
import { Glyphs } from './glyphs';
import { cornerNumbers, Ink } from './ink';
import { drawBars, drawPoints, drawTrace, traceLength } from './number-faces';

/** Milliseconds between two values of a trace. */
const traceMs = 50;
/** Height of captions and their distance from the edges of a face, at its own size. */
const captionSize = 10.5;
const captionEdge = 6;
/** Pixels below which letters can't be read and are left out. */
const leastLetters = 5;
/** Radius of the upper corners of a card. */
const corner = 5;
/** Where a bead rides: the share of a wire that it keeps from both of its ends. */
const beadEdge = 0.08;

const vertex = `#version 300 es
precision highp float;
in vec2 at;
in vec2 local;
in vec4 form;
in vec4 colour;
uniform vec2 size;
uniform sampler2D means;
out vec2 inside;
flat out vec4 shape;
flat out vec4 tint;
void main() {
  inside = local;
  shape = form;
  tint = form.x == 4.0 ? vec4(texelFetch(means, ivec2(int(colour.x), 0), 0).rgb, colour.w) : colour;
  gl_Position = vec4(at / size * vec2(2.0, -2.0) + vec2(-1.0, 1.0), 0.0, 1.0);
}`;

const fragment = `#version 300 es
precision highp float;
in vec2 inside;
flat in vec4 shape;
flat in vec4 tint;
uniform sampler2D faces;
uniform sampler2D glyphs;
out vec4 result;
/** 1 inside of the two upper corners. */
float rounded(vec2 p, float width, float radius) {
  float out_ = max(radius - p.x, p.x - (width - radius));
  if (p.y >= radius || out_ <= 0.0) return 1.0;
  return clamp(radius - length(vec2(out_, radius - p.y)) + 0.5, 0.0, 1.0);
}
void main() {
  if (shape.x == 3.0) {
    // Half a pixel is kept from the edges, beyond which other faces lie.
    vec2 p = clamp(inside, vec2(0.5), shape.yz - 0.5) / shape.yz;
    vec3 c = texture(faces, tint.xy + p * tint.zw).rgb;
    result = vec4(c, 1.0) * rounded(inside, shape.y, shape.w);
    return;
  }
  float covered;
  if (shape.x == 2.0) covered = texelFetch(glyphs, ivec2(inside), 0).a;
  else if (shape.x == 1.0) covered = rounded(inside, shape.y, shape.w);
  else {
    float along = clamp(inside.x, 0.0, shape.y);
    covered = clamp(shape.z - length(inside - vec2(along, 0.0)) + 0.5, 0.0, 1.0);
    if (shape.w >= 0.0 && mod(shape.w + along, 12.0) > 7.0) covered = 0.0;
  }
  float alpha = covered * tint.a;
  result = vec4(tint.rgb * alpha, alpha);
}`;

/** A layout with what is worked out of it once. */
interface Laid {
  layout: LayerLayout;
  pictures: string[];
  numbers: string[];
  /** Places along each wire, in pixels. */
  wires: Float32Array[];
}

/** Pixels from places of the patch. */
const pixels = ({ view: { x, y, zoom }, ratio }: LayerLayout) => ({
  x: (place: number): number => (place * zoom + x) * ratio,
  y: (place: number): number => (place * zoom + y) * ratio,
  scale: zoom * ratio,
});

function lay(layout: LayerLayout): Laid {
  const to = pixels(layout);
  const sources = new Set(layout.faces.filter(({ shows }) => shows === 'numbers').map(({ node }) => node));
  for (const wire of layout.wires) if (wire.range) sources.add(wire.node);
  return {
    layout,
    pictures: layout.faces.filter(({ shows }) => shows === 'picture').map(({ node }) => node),
    numbers: [...sources],
    wires: layout.wires.map(({ curve }) => flatten(curve.map((v, k) => (k % 2 ? to.y(v) : to.x(v))))),
  };
}

/**
 * What moves on the patch: pictures, traces, bars and points on the cards, their captions, beads and the colours of wires.
 * All of it is one picture behind the cards, drawn from what the GPU has already; nothing is read back. Lives as long as its
 * GPU context.
 */
export class LiveLayer {
  private readonly ink = new Ink();
  private readonly glyphs = new Glyphs();
  private readonly sheet: FaceSheet;
  private readonly scene = new Scene();
  private readonly camera = new OrthographicCamera(-1, 1, 1, -1, 0, 1);
  private readonly mesh: Mesh<BufferGeometry, RawShaderMaterial>;
  private readonly uniforms = {
    size: { value: [1, 1] },
    means: { value: null as Texture | null },
    faces: { value: null as Texture | null },
    glyphs: { value: null as Texture | null },
  };
  private buffer: InterleavedBuffer | null = null;
  private laid: Laid | null = null;
  private readonly traces = new Map<string, number[]>();
  private lastTrace = 0;

  constructor(private readonly gpu: Gpu) {
    this.sheet = new FaceSheet(gpu);
    const material = gpu.material(fragment, this.uniforms, vertex);
    // Rows count downward here, which turns every quad over.
    material.side = DoubleSide;
    material.blending = CustomBlending;
    material.blendEquation = AddEquation;
    material.blendSrc = OneFactor;
    material.blendDst = OneMinusSrcAlphaFactor;
    this.mesh = new Mesh(new BufferGeometry(), material);
    this.mesh.frustumCulled = false;
    this.scene.add(this.mesh);
  }

  /** A frame of the scene was drawn. */
  note(player: ScenePlayer): void {
    this.sheet.note(player);
  }

  /** Pictures on cards that were drawn since the start. */
  get facesDrawn(): number {
    return this.sheet.count;
  }

  /** Whether anything on it looks otherwise than when it was last painted. */
  hasNews(layout: LayerLayout, player: ScenePlayer): boolean {
    return (
      this.laid?.layout !== layout ||
      this.sheet.isStale ||
      this.laid.numbers.some((node) => player.run.runs.get(node)?.changed)
    );
  }

  /** Draws the layer into the lower left of the canvas. `busy`: the GPU has no time to spare. */
  paint(layout: LayerLayout, player: ScenePlayer, now: number, busy: boolean): void {
    const { gpu, sheet, uniforms } = this;
    if (this.laid?.layout !== layout) this.laid = lay(layout);
    const { laid } = this;
    const first = layout.faces.find(({ shows }) => shows === 'picture');
    const { scale } = pixels(layout);
    const [width, height] = first ? [first.width, first.height] : [1, 1];
    sheet.usualColour = layout.colours.image;
    sheet.fit(laid.pictures, Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale)));
    sheet.refresh(player, busy);
    this.draw(laid, player, now);
    this.upload();
    uniforms.size.value = [layout.width, layout.height];
    uniforms.means.value = sheet.means;
    uniforms.faces.value = sheet.faces;
    uniforms.glyphs.value = this.glyphs.texture;
    gpu.passes++;
    gpu.renderer.setRenderTarget(null);
    gpu.renderer.setViewport(0, 0, layout.width, layout.height);
    gpu.renderer.render(this.scene, this.camera);
  }

  private draw(laid: Laid, player: ScenePlayer, now: number): void {
    const { layout } = laid;
    const { ink } = this;
    const glances = new Map(glanceNodes(player.run, laid.numbers).map((glance) => [glance.node, glance]));
    this.keepTraces(glances, now);
    ink.clear();
    this.drawWires(laid, glances);
    const { scale } = pixels(layout);
    this.glyphs.begin(Math.round(captionSize * scale));
    for (const face of layout.faces) this.drawFace(layout, face, glances.get(face.node));
  }

  private keepTraces(glances: ReadonlyMap<string, NodeGlance>, now: number): void {
    if (now - this.lastTrace < traceMs) return;
    this.lastTrace = now;
    for (const id of this.traces.keys()) if (!glances.has(id)) this.traces.delete(id);
    for (const [id, { kind, values, count }] of glances) {
      if (kind !== 'signal' || count > 1) continue;
      const trace = this.traces.get(id) ?? [];
      this.traces.set(id, trace);
      trace.push(values[0] ?? 0);
      if (trace.length > traceLength) trace.shift();
    }
  }

  private drawWires({ layout, wires }: Laid, glances: ReadonlyMap<string, NodeGlance>): void {
    const { ink, sheet } = this;
    const { scale } = pixels(layout);
    layout.wires.forEach(({ node, dashed, range }, k) => {
      const cell = range ? null : sheet.indexOf(node);
      if (cell === null) return;
      const places = wires[k];
      let at = 0;
      for (let j = 2; j < places.length; j += 2) {
        const [ax, ay, bx, by] = places.subarray(j - 2, j + 2);
        ink.wire(ax, ay, bx, by, scale, cell, dashed ? at / scale : -1);
        at += Math.hypot(bx - ax, by - ay);
      }
    });
    layout.wires.forEach(({ node, lane, range }, k) => {
      const glance = range && glances.get(node);
      if (!glance || glance.values.length === 0) return;
      const [low, high] = range;
      const value = glance.values[Math.max(0, lane === null ? 0 : glance.lanes.indexOf(lane))];
      const share = Math.min(1, Math.max(0, (value - low) / (high - low || 1)));
      const [x, y] = alongPlaces(wires[k], beadEdge + (1 - 2 * beadEdge) * share);
      ink.disc(x, y, 5.5 * scale, layout.colours.ground);
      ink.disc(x, y, 4 * scale, layout.colours.signal);
    });
  }

  private drawFace(layout: LayerLayout, face: LayerFace, glance: NodeGlance | undefined): void {
    const { ink, glyphs } = this;
    const to = pixels(layout);
    const { scale } = to;
    const [x, y] = [to.x(face.x), to.y(face.y)];
    const [width, height] = [face.width * scale, face.height * scale];
    const radius = corner * scale;
    if (face.shows === 'picture') {
      const cell = this.sheet.cellOf(face.node);
      if (cell) ink.picture(x, y, width, height, cell, radius);
      else ink.box(x, y, width, height, [0, 0, 0], 1, radius);
      return;
    }
    ink.box(x, y, width, height, layout.colours.ground, 1, radius);
    if (!glance) return;
    const box = { x, y, width, height };
    const { colours } = layout;
    if (glance.kind !== 'signal') drawPoints(ink, glance.samples, box, scale, colours[glance.kind]);
    else if (glance.count > 1) drawBars(ink, glance.samples, box, scale, colours.signal);
    else drawTrace(ink, this.traces.get(face.node) ?? [], box, scale, colours.signal);
    if (captionSize * scale < leastLetters) return;
    const edge = captionEdge * scale;
    glyphs.write(ink, glance.caption, x + width - edge, y + height - edge, width - 2 * edge, colours.ink);
  }

  /** Hands the corners to the GPU. */
  private upload(): void {
    const { ink } = this;
    if (this.buffer?.array !== ink.corners) {
      this.mesh.geometry.dispose();
      const buffer = new InterleavedBuffer(ink.corners, cornerNumbers);
      const geometry = new BufferGeometry();
      const parts = { at: [2, 0], local: [2, 2], form: [4, 4], colour: [4, 8] } as const;
      for (const [name, [size, offset]] of Object.entries(parts))
        geometry.setAttribute(name, new InterleavedBufferAttribute(buffer, size, offset));
      const most = ink.corners.length / (4 * cornerNumbers);
      const index: number[] = [];
      for (let k = 0; k < most; k++) index.push(4 * k, 4 * k + 1, 4 * k + 2, 4 * k + 2, 4 * k + 1, 4 * k + 3);
      geometry.setIndex(index);
      this.mesh.geometry = geometry;
      this.buffer = buffer;
    }
    this.buffer.clearUpdateRanges();
    this.buffer.addUpdateRange(0, ink.quads * 4 * cornerNumbers);
    this.buffer.needsUpdate = true;
    this.mesh.geometry.setDrawRange(0, 6 * ink.quads);
  }
}
