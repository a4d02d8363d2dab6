import { defaultCamera } from '../../core/kind/prop';
import { ShotCamera } from '../prop/shot-camera';
import type { Shown } from './measure';
import { size } from './rig';

/** The little that a program written by hand for one picture needs: WebGL2 without a library. */
export class Raw {
  readonly gl: WebGL2RenderingContext;
  private readonly read = new Uint8Array(4);
  private readonly canvas = new OffscreenCanvas(16, 16);

  constructor(depth = false) {
    this.gl = this.canvas.getContext('webgl2', { alpha: false, antialias: false, depth })!;
    const { gl } = this;
    gl.getExtension('EXT_color_buffer_float');
    gl.getExtension('OES_texture_float_linear');
  }

  program(vertex: string, fragment: string): WebGLProgram {
    const { gl } = this;
    const program = gl.createProgram();
    for (const [type, text] of [
      [gl.VERTEX_SHADER, vertex],
      [gl.FRAGMENT_SHADER, fragment],
    ] as const) {
      const shader = gl.createShader(type)!;
      gl.shaderSource(shader, text);
      gl.compileShader(shader);
      if (!gl.getShaderParameter(shader, gl.COMPILE_STATUS))
        throw new Error(`hand-written shader: ${gl.getShaderInfoLog(shader)}`);
      gl.attachShader(program, shader);
    }
    gl.linkProgram(program);
    return program;
  }

  target(
    width: number,
    height: number,
    format: number,
  ): { framebuffer: WebGLFramebuffer; texture: WebGLTexture } {
    const { gl } = this;
    const texture = gl.createTexture();
    gl.bindTexture(gl.TEXTURE_2D, texture);
    gl.texStorage2D(gl.TEXTURE_2D, 1, format, width, height);
    this.smooth(true);
    const framebuffer = gl.createFramebuffer();
    gl.bindFramebuffer(gl.FRAMEBUFFER, framebuffer);
    gl.framebufferTexture2D(gl.FRAMEBUFFER, gl.COLOR_ATTACHMENT0, gl.TEXTURE_2D, texture, 0);
    return { framebuffer, texture };
  }

  numbers(width: number, height: number, rgba: Float32Array): WebGLTexture {
    const { gl } = this;
    const texture = gl.createTexture();
    gl.bindTexture(gl.TEXTURE_2D, texture);
    gl.texStorage2D(gl.TEXTURE_2D, 1, gl.RGBA32F, width, height);
    gl.texSubImage2D(gl.TEXTURE_2D, 0, 0, 0, width, height, gl.RGBA, gl.FLOAT, rgba);
    this.smooth(false);
    return texture;
  }

  /** A picture of 32 bits, read smoothly. */
  picture(width: number, height: number, rgba: Float32Array): WebGLTexture {
    const { gl } = this;
    const { texture } = this.target(width, height, gl.RGBA32F);
    gl.bindTexture(gl.TEXTURE_2D, texture);
    gl.texSubImage2D(gl.TEXTURE_2D, 0, 0, 0, width, height, gl.RGBA, gl.FLOAT, rgba);
    return texture;
  }

  private smooth(on: boolean): void {
    const { gl } = this;
    const filter = on ? gl.LINEAR : gl.NEAREST;
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MIN_FILTER, filter);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MAG_FILTER, filter);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_WRAP_S, gl.CLAMP_TO_EDGE);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_WRAP_T, gl.CLAMP_TO_EDGE);
  }

  /** A buffer of numbers as an attribute of a vertex array of its own, with the order in which they are drawn. */
  vertices(
    program: WebGLProgram,
    attributes: Record<string, [Float32Array, number]>,
    index: Uint32Array,
  ): WebGLVertexArrayObject {
    const { gl } = this;
    const array = gl.createVertexArray();
    gl.bindVertexArray(array);
    for (const [name, [values, width]] of Object.entries(attributes)) {
      gl.bindBuffer(gl.ARRAY_BUFFER, gl.createBuffer());
      gl.bufferData(gl.ARRAY_BUFFER, values, gl.STATIC_DRAW);
      const at = gl.getAttribLocation(program, name);
      gl.enableVertexAttribArray(at);
      gl.vertexAttribPointer(at, width, gl.FLOAT, false, 0, 0);
    }
    gl.bindBuffer(gl.ELEMENT_ARRAY_BUFFER, gl.createBuffer());
    gl.bufferData(gl.ELEMENT_ARRAY_BUFFER, index, gl.STATIC_DRAW);
    gl.bindVertexArray(null);
    return array;
  }

  /** Writes numbers into a texture that was made for as many. */
  rewrite(texture: WebGLTexture, width: number, height: number, rgba: Float32Array): void {
    const { gl } = this;
    gl.bindTexture(gl.TEXTURE_2D, texture);
    gl.texSubImage2D(gl.TEXTURE_2D, 0, 0, 0, width, height, gl.RGBA, gl.FLOAT, rgba);
  }

  /** One triangle over the whole target. */
  pass(program: WebGLProgram, framebuffer: WebGLFramebuffer | null, width: number, height: number): void {
    const { gl } = this;
    gl.bindFramebuffer(gl.FRAMEBUFFER, framebuffer);
    gl.viewport(0, 0, width, height);
    gl.useProgram(program);
    gl.drawArrays(gl.TRIANGLES, 0, 3);
  }

  /** A piece of work drawn by hand onto a surface of that size: the last that a frame draws goes there. */
  shown(frame: (k: number) => void, of: Shown['size'] = size): Shown {
    const { gl, canvas } = this;
    const { width, height } = of;
    const whole = new Uint8Array(4 * width * height);
    return {
      size: of,
      frame: (k) => {
        if (canvas.width !== width || canvas.height !== height) Object.assign(canvas, { width, height });
        frame(k);
      },
      pixels: () => {
        gl.bindFramebuffer(gl.FRAMEBUFFER, null);
        gl.readPixels(0, 0, width, height, gl.RGBA, gl.UNSIGNED_BYTE, whole);
        return whole.slice();
      },
      finish: () => {
        gl.bindFramebuffer(gl.FRAMEBUFFER, null);
        gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, this.read);
      },
    };
  }
}

/** Half a step of noise before the last rounding to 8 bits, as surfaces of the engine have it. */
export const ditherGlsl = `
vec3 dither(vec3 c) { return c + fract(52.9829189 * fract(dot(gl_FragCoord.xy, vec2(0.06711056, 0.00583715)))) / 255.0 - 0.5 / 255.0; }
`;

/** A number as a literal of GLSL. */
export const literal = (value: number): string => {
  const text = String(Number(value.toPrecision(9)));
  return /[.e]/.test(text) ? text : `${text}.0`;
};
export const vec = (values: readonly number[]): string =>
  `vec${values.length}(${values.map(literal).join(', ')})`;

const camera = new ShotCamera();
const degrees = Math.PI / 180;

/** What the camera of the measured patches sees, swinging by 5 degrees, as one matrix: worked out on the processor once a frame. */
export function seenAt(k: number, aspect: number): Float32Array {
  const orbit = (30 + 5 * Math.sin((Math.PI * k) / 60)) * degrees;
  const [up, distance] = [25 * degrees, 1.9];
  const flat = distance * Math.cos(up);
  const place: [number, number, number] = [
    flat * Math.sin(orbit),
    distance * Math.sin(up),
    flat * Math.cos(orbit),
  ];
  const { projectionMatrix, matrixWorld } = camera.place({ ...defaultCamera, place }, aspect);
  return new Float32Array(projectionMatrix.clone().multiply(matrixWorld.clone().invert()).elements);
}

export const fullVertex = `#version 300 es
out vec2 place;
void main() {
  vec2 p = vec2(float((gl_VertexID << 1) & 2), float(gl_VertexID & 2));
  place = p;
  gl_Position = vec4(p * 2.0 - 1.0, 0.0, 1.0);
}`;
