import { coverOf, type Drawing } from './measure';
import { size } from './rig';

/** The little that a program written by hand for one picture needs: WebGL2 without a library. */
export class Raw {
  readonly gl: WebGL2RenderingContext;
  private readonly read = new Uint8Array(4);
  private readonly probe: WebGLFramebuffer;

  constructor() {
    const canvas = new OffscreenCanvas(16, 16);
    this.gl = canvas.getContext('webgl2', { alpha: false, antialias: false, depth: false })!;
    const { gl } = this;
    gl.getExtension('EXT_color_buffer_float');
    gl.getExtension('OES_texture_float_linear');
    this.probe = this.target(1, 1, gl.RGBA8).framebuffer;
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

  /** A picture of 16 bits, read smoothly. */
  picture(width: number, height: number, rgba: Float32Array): WebGLTexture {
    const { gl } = this;
    const { texture } = this.target(width, height, gl.RGBA16F);
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
  pass(program: WebGLProgram, framebuffer: WebGLFramebuffer, width: number, height: number): void {
    const { gl } = this;
    gl.bindFramebuffer(gl.FRAMEBUFFER, framebuffer);
    gl.viewport(0, 0, width, height);
    gl.useProgram(program);
    gl.drawArrays(gl.TRIANGLES, 0, 3);
  }

  /** A piece of work drawn by hand, ended by a read of one pixel of `last`, which is that large. */
  work(last: WebGLFramebuffer, frame: (k: number) => void, { width, height } = size): Drawing {
    const { gl } = this;
    return {
      frame,
      covered: () => {
        const rgba = new Float32Array(4 * width * height);
        gl.bindFramebuffer(gl.FRAMEBUFFER, last);
        gl.readPixels(0, 0, width, height, gl.RGBA, gl.FLOAT, rgba);
        return coverOf(rgba);
      },
      finish: () => {
        // A blit of one pixel into 8 bits depends on the picture and can be read whatever its precision.
        gl.bindFramebuffer(gl.READ_FRAMEBUFFER, last);
        gl.bindFramebuffer(gl.DRAW_FRAMEBUFFER, this.probe);
        gl.blitFramebuffer(0, 0, 1, 1, 0, 0, 1, 1, gl.COLOR_BUFFER_BIT, gl.NEAREST);
        gl.bindFramebuffer(gl.FRAMEBUFFER, this.probe);
        gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, this.read);
      },
    };
  }
}

export const fullVertex = `#version 300 es
out vec2 place;
void main() {
  vec2 p = vec2(float((gl_VertexID << 1) & 2), float(gl_VertexID & 2));
  place = p;
  gl_Position = vec4(p * 2.0 - 1.0, 0.0, 1.0);
}`;

/** What the usual camera sees, 16:9, swinging by 5 degrees as it does in the patches that are measured. */
export const usualCamera = `
uniform float time;
vec4 seen(vec3 p) {
  float a = 0.5236 + sin(time * 3.1416) * 0.08727;
  p.xz = mat2(cos(a), sin(a), -sin(a), cos(a)) * p.xz;
  p.yz = mat2(0.90631, 0.42262, -0.42262, 0.90631) * p.yz;
  p.z -= 1.9;
  return vec4(p.x * 2.74748 * 360.0 / 640.0, p.y * 2.74748, -p.z - 0.02, -p.z);
}`;
