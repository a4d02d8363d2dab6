import {
  BufferAttribute,
  BufferGeometry,
  ClampToEdgeWrapping,
  ColorManagement,
  DataTexture,
  FloatType,
  HalfFloatType,
  LinearFilter,
  LinearSRGBColorSpace,
  Mesh,
  NearestFilter,
  NoBlending,
  OrthographicCamera,
  RawShaderMaterial,
  RGBAFormat,
  Scene,
  UnsignedByteType,
  WebGLRenderer,
  WebGLRenderTarget,
  type IUniform,
  type Object3D,
  type Texture,
} from 'three';
import { isSoftwareRenderer } from '../../core/software-renderer';
import { vertexText } from './full-screen';
import { Pool } from './pool';

// Pictures are worked on as they will be shown; nothing may convert them behind our back.
ColorManagement.enabled = false;

export type Bits = '8' | '16' | '32';

/** How three names the formats. */
export const bitTypes = { '8': UnsignedByteType, '16': HalfFloatType, '32': FloatType } as const;

/** A shader that does not compile. `log` is what the compiler said. */
export class ShaderError extends Error {
  override name = 'ShaderError';
  constructor(readonly log: string) {
    const first = log.split('\n').find((line) => line.trim()) ?? 'no reason given';
    super(`The shader does not compile: ${first.trim()}`);
  }
}

/** Without this a texture is read with as little precision as the GPU has: some then round 32-bit numbers to 16 bits. */
const wholeNumbers = 'precision highp sampler2D;\n';

/** The renderer's name for itself, as far as the browser tells. */
function rendererName(gl: WebGL2RenderingContext): string {
  const named = gl.getExtension('WEBGL_debug_renderer_info');
  return String(gl.getParameter(named ? named.UNMASKED_RENDERER_WEBGL : gl.RENDERER));
}

/**
 * What `auto` precision means for pictures: 16-bit floats on a graphics card. SwiftShader decodes those one by one, and
 * takes 2 to 2.6 times as long for a read, a blur or blending as with 32 bits, which cost it no more than 8.
 */
const usualBitsOf = (renderer: string): Bits => (/swiftshader/i.test(renderer) ? '32' : '16');

/** A part of a picture, as shares of it from its lower left. */
export interface ShareBox {
  x: number;
  y: number;
  width: number;
  height: number;
}

const bytesOf = (width: number, height: number, bits: Bits, samples: number): number =>
  (width * height * (1 + samples) * Number(bits)) / 2;

/** Sole owner of the graphics context, its render targets and the full-screen pass. */
export class Gpu {
  readonly canvas: OffscreenCanvas;
  readonly renderer: WebGLRenderer;
  readonly gl: WebGL2RenderingContext;
  /** Whether pictures of 16 and 32 bits can be drawn into. */
  readonly floats: boolean;
  /** What `auto` precision means for pictures that are only looked at. */
  readonly usualBits: Bits;
  /** Samples a pixel that a picture of 32 bits can have at most. */
  private readonly deepSamples: number;
  /** Vectors that the corners of a picture should hand on: see CornerNumbers. */
  flatVaryings: number;
  passes = 0;
  /** Pictures of nodes that were drawn anew since the start: as long as it stands, nothing looks otherwise. */
  pictures = 0;
  /** Programs handed to the compiler since the start. */
  compiles = 0;
  /** Shaders that were found to be compiled. */
  private readonly used = new WeakSet<object>();
  /** Called when a shader comes into use: drivers make some of them only as they first draw, and that may take seconds. */
  onFresh: () => void = () => undefined;
  private readonly scene = new Scene();
  private readonly camera = new OrthographicCamera(-1, 1, 1, -1, 0, 1);
  private readonly quad: Mesh<BufferGeometry, RawShaderMaterial>;
  private readonly copyMaterial: RawShaderMaterial;
  private readonly pool = new Pool<WebGLRenderTarget>();
  private inUse = 0;
  /** Bytes of all pictures that are in use. */
  bytes = 0;
  private readonly emptyTexture: DataTexture;
  private readonly whiteTexture: DataTexture;

  constructor() {
    this.canvas = new OffscreenCanvas(16, 16);
    const gl = this.canvas.getContext('webgl2', {
      // What is painted for the page may be see-through: the live layer lies behind the cards.
      alpha: true,
      antialias: false,
      depth: false,
      powerPreference: 'high-performance',
    });
    if (!gl)
      throw new Error(
        'This browser gives no WebGL2. Switch on graphics acceleration, or use a newer browser.',
      );
    this.gl = gl;
    this.renderer = new WebGLRenderer({ canvas: this.canvas as unknown as HTMLCanvasElement, context: gl });
    this.renderer.outputColorSpace = LinearSRGBColorSpace;
    this.renderer.autoClear = false;
    this.renderer.debug.checkShaderErrors = false;
    this.floats = gl.getExtension('EXT_color_buffer_float') !== null;
    gl.getExtension('OES_texture_float_linear');
    gl.getExtension('EXT_float_blend');
    const renderer = rendererName(gl);
    this.usualBits = usualBitsOf(renderer);
    const samples = gl.getInternalformatParameter(
      gl.RENDERBUFFER,
      gl.RGBA32F,
      gl.SAMPLES,
    ) as Int32Array | null;
    this.deepSamples = samples?.[0] ?? 0;
    // Three are left for what differs from corner to corner.
    this.flatVaryings = isSoftwareRenderer(renderer)
      ? (gl.getParameter(gl.MAX_VARYING_VECTORS) as number) - 3
      : 0;
    const corners = new BufferGeometry();
    // One triangle over the whole picture: no seam along a diagonal.
    corners.setAttribute(
      'position',
      new BufferAttribute(new Float32Array([-1, -1, 0, 3, -1, 0, -1, 3, 0]), 3),
    );
    corners.setAttribute('uv', new BufferAttribute(new Float32Array([0, 0, 2, 0, 0, 2]), 2));
    this.copyMaterial = this.material(
      `#version 300 es
precision highp float;
in vec2 place;
uniform sampler2D picture;
out vec4 result;
void main() { result = texture(picture, place); }`,
      { picture: { value: null } },
    );
    this.quad = new Mesh(corners, this.copyMaterial);
    this.quad.frustumCulled = false;
    this.scene.add(this.quad);
    this.emptyTexture = new DataTexture(new Uint8Array(4), 1, 1);
    this.emptyTexture.needsUpdate = true;
    this.whiteTexture = new DataTexture(new Uint8Array(4).fill(255), 1, 1);
    this.whiteTexture.needsUpdate = true;
  }

  /** One see-through pixel, for everything that is not there. */
  get empty(): Texture {
    return this.emptyTexture;
  }

  /** One white pixel, for what is multiplied and on its way. */
  get white(): Texture {
    return this.whiteTexture;
  }

  get isLost(): boolean {
    return this.gl.isContextLost();
  }

  get shaderCount(): number {
    return this.renderer.info.programs?.length ?? 0;
  }

  get textureCount(): number {
    return this.renderer.info.memory.textures;
  }

  get targetCount(): number {
    return this.inUse + this.pool.size;
  }

  material(
    fragment: string,
    uniforms: Record<string, IUniform>,
    vertex: string = vertexText,
  ): RawShaderMaterial {
    return new RawShaderMaterial({
      vertexShader: vertex.replace('#version 300 es\n', wholeNumbers),
      fragmentShader: fragment.replace('#version 300 es\n', wholeNumbers),
      glslVersion: '300 es',
      uniforms: { region: { value: [0, 0, 1, 1] }, ...uniforms },
      depthTest: false,
      depthWrite: false,
      blending: NoBlending,
    });
  }

  /** Hands a shader to the compiler; `compiled` says when it is done. */
  beginCompile(material: RawShaderMaterial): void {
    this.compiles++;
    const before = this.quad.material;
    this.quad.material = material;
    try {
      this.renderer.compile(this.scene, this.camera);
    } finally {
      this.quad.material = before;
    }
  }

  /** The same for what is drawn as a mesh of its own. */
  beginCompileMesh(mesh: Object3D): void {
    this.compiles++;
    this.renderer.compile(mesh, this.camera, this.scene);
  }

  /** Whether the compiler is done with a shader: asked without waiting, where the platform can tell. */
  compiled(material: RawShaderMaterial): boolean {
    const { currentProgram } = this.renderer.properties.get(material) as {
      currentProgram?: { isReady(): boolean };
    };
    if (currentProgram && !this.isLost) {
      if (!currentProgram.isReady()) return false;
      if (!this.used.has(currentProgram)) this.onFresh();
      this.used.add(currentProgram);
    }
    return true;
  }

  /** Compiles now and throws ShaderError if the driver refuses it. */
  compile(material: RawShaderMaterial): void {
    this.beginCompile(material);
    this.checkShader(material);
  }

  /** Throws ShaderError if the shader of a material did not link. */
  checkShader(material: RawShaderMaterial): void {
    const { currentProgram } = this.renderer.properties.get(material) as {
      currentProgram?: { program: WebGLProgram; fragmentShader: WebGLShader; vertexShader: WebGLShader };
    };
    if (!currentProgram || this.isLost) return;
    const { gl } = this;
    if (gl.getProgramParameter(currentProgram.program, gl.LINK_STATUS)) return;
    const log = [currentProgram.fragmentShader, currentProgram.vertexShader]
      .map((shader) => gl.getShaderInfoLog(shader) ?? '')
      .concat(gl.getProgramInfoLog(currentProgram.program) ?? '')
      .filter((text) => text.trim())
      .join('\n');
    throw new ShaderError(log);
  }

  private key(width: number, height: number, bits: Bits, depth: boolean, samples: number): string {
    return `${width}x${height}x${bits}x${depth}x${samples}`;
  }

  /** A render target of that size; give it back with `release`. */
  acquire(width: number, height: number, bits: Bits, depth = false, samples = 0): WebGLRenderTarget {
    const real: Bits = this.floats ? bits : '8';
    // 32-bit targets with several samples a pixel are not drawable everywhere.
    const edges = real === '32' ? Math.min(samples, this.deepSamples) : samples;
    this.bytes += bytesOf(width, height, real, edges);
    this.inUse++;
    const ready = this.pool.take(this.key(width, height, real, depth, edges));
    if (ready) return ready;
    const target = new WebGLRenderTarget(width, height, {
      type: bitTypes[real],
      format: RGBAFormat,
      minFilter: LinearFilter,
      magFilter: LinearFilter,
      wrapS: ClampToEdgeWrapping,
      wrapT: ClampToEdgeWrapping,
      depthBuffer: depth,
      samples: edges,
      generateMipmaps: false,
    });
    target.texture.userData = { bits: real };
    return target;
  }

  /** Whether a target is of that size and format. */
  fits(target: WebGLRenderTarget, width: number, height: number, bits: Bits): boolean {
    const real: Bits = this.floats ? bits : '8';
    const has = (target.texture.userData as { bits: Bits }).bits;
    return target.width === width && target.height === height && has === real;
  }

  release(target: WebGLRenderTarget): void {
    const bits = (target.texture.userData as { bits: Bits }).bits;
    this.bytes -= bytesOf(target.width, target.height, bits, target.samples);
    this.inUse--;
    this.pool.give(this.key(target.width, target.height, bits, target.depthBuffer, target.samples), target);
  }

  /** To be called about once a second: lets go of targets of sizes that are used no longer. */
  trim(): void {
    this.pool.trim();
  }

  /** A texture of 32-bit numbers, first row lowest. */
  dataTexture(rgba: Float32Array, width: number, height: number, smooth = false): DataTexture {
    const texture = new DataTexture(rgba, width, height, RGBAFormat, FloatType);
    texture.minFilter = texture.magFilter = smooth ? LinearFilter : NearestFilter;
    texture.wrapS = texture.wrapT = ClampToEdgeWrapping;
    texture.needsUpdate = true;
    return texture;
  }

  /** Draws a full-screen pass into a target (null: the canvas), or a layer of one that has several. */
  pass(material: RawShaderMaterial, target: WebGLRenderTarget | null, layer = 0): void {
    this.passes++;
    this.quad.material = material;
    this.renderer.setRenderTarget(target, layer);
    this.renderer.render(this.scene, this.camera);
  }

  /** The same into parts of a target only: what lies outside of them stays. Boxes are shares of it from its lower left. */
  passWithin(material: RawShaderMaterial, target: WebGLRenderTarget, boxes: readonly ShareBox[]): void {
    const { width, height, scissor } = target;
    target.scissorTest = true;
    for (const box of boxes) {
      const [x, y] = [Math.floor(box.x * width + 1e-6), Math.floor(box.y * height + 1e-6)];
      const right = Math.ceil((box.x + box.width) * width - 1e-6);
      const upper = Math.ceil((box.y + box.height) * height - 1e-6);
      scissor.set(x, y, right - x, upper - y);
      // three takes a target's scissor over when the target is set.
      this.pass(material, target);
    }
    target.scissorTest = false;
    scissor.set(0, 0, width, height);
  }

  copy(from: Texture, to: WebGLRenderTarget | null, layer = 0): void {
    this.copyMaterial.uniforms.picture.value = from;
    this.pass(this.copyMaterial, to, layer);
  }

  /**
   * Moves what is drawn in the lower left of the canvas into a target of 8 bits, scaled to its size and with the upper row first, as
   * pages have it. The canvas is empty after it.
   */
  moveCanvas(width: number, height: number, target: WebGLRenderTarget): void {
    const { gl, renderer } = this;
    renderer.setRenderTarget(target);
    const { __webglFramebuffer: into } = renderer.properties.get(target) as {
      __webglFramebuffer: WebGLFramebuffer;
    };
    // three binds both at once, and must find them so again.
    gl.bindFramebuffer(gl.READ_FRAMEBUFFER, null);
    gl.blitFramebuffer(
      ...[0, 0, width, height],
      ...[0, target.height, target.width, 0],
      gl.COLOR_BUFFER_BIT,
      gl.LINEAR,
    );
    gl.bindFramebuffer(gl.READ_FRAMEBUFFER, into);
    renderer.setRenderTarget(null);
    renderer.setClearColor(0x000000, 0);
    renderer.clear(true, false, false);
  }

  /** The pixels of a target of 32 bits (8, where the GPU has no floats) as numbers, once the GPU is done; the lowest row first. */
  async readNumbers(target: WebGLRenderTarget): Promise<Float32Array> {
    const { width, height } = target;
    const rgba = new Float32Array(4 * width * height);
    const pixels = this.floats ? rgba : new Uint8Array(rgba.length);
    await this.renderer.readRenderTargetPixelsAsync(target, 0, 0, width, height, pixels);
    if (!this.floats) pixels.forEach((v, k) => (rgba[k] = v / 255));
    return rgba;
  }

  /** The pixels of a target of 8 bits, once the GPU is done; the lowest row first. Takes the target back. Rejects if the GPU is lost meanwhile. */
  async takeBytes(target: WebGLRenderTarget): Promise<Uint8Array<ArrayBuffer>> {
    const { width, height } = target;
    const bytes = new Uint8Array(4 * width * height);
    try {
      await this.renderer.readRenderTargetPixelsAsync(target, 0, 0, width, height, bytes);
      return bytes;
    } finally {
      if (!this.isLost) this.release(target);
    }
  }

  clear(target: WebGLRenderTarget): void {
    this.renderer.setRenderTarget(target);
    this.renderer.setClearColor(0x000000, 0);
    this.renderer.clear(true, true, false);
  }

  /** Sets the size of the canvas that `pass(…, null)` draws on. */
  resize(width: number, height: number): void {
    if (this.canvas.width !== width || this.canvas.height !== height)
      this.renderer.setSize(width, height, false);
  }

  /** Resolves when the GPU has done all it was given; the worker stays free meanwhile. */
  async finish(): Promise<void> {
    const { gl } = this;
    const fence = gl.fenceSync(gl.SYNC_GPU_COMMANDS_COMPLETE, 0);
    if (!fence) return;
    gl.flush();
    do await new Promise((resolve) => setTimeout(resolve, 1));
    while (gl.getSyncParameter(fence, gl.SYNC_STATUS) !== gl.SIGNALED && !this.isLost);
    gl.deleteSync(fence);
  }

  /** Stops everything until all that was asked for is drawn: only where times of single steps are wanted. */
  wait(): void {
    // `finish` is taken by Chromium as a mere flush; a pixel cannot be read before all is drawn.
    this.renderer.setRenderTarget(null);
    this.gl.readPixels(0, 0, 1, 1, this.gl.RGBA, this.gl.UNSIGNED_BYTE, new Uint8Array(4));
  }

  dispose(): void {
    this.pool.clear();
    this.renderer.dispose();
    if (!this.isLost) this.gl.getExtension('WEBGL_lose_context')?.loseContext();
  }
}
