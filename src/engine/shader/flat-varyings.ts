/** GLSL types of numbers that can be handed on, with how many floats they are. */
const floats = { float: 1, vec2: 2, vec3: 3, vec4: 4, mat3: 9 } as const;
export type VaryingType = keyof typeof floats;

export const isVaryingType = (type: string): type is VaryingType => type in floats;

/**
 * Numbers that are the same for a whole picture and that its fragment shader reads again and again. A renderer in software
 * reads a uniform slowly, once for each pixel and with its bounds looked after each time; what the corners of the picture
 * hand on as `flat` lies ready. A GPU has registers of its own for uniforms and is better left alone.
 */
export class FlatVaryings {
  /** What each vector holds so far: the expressions, and how many floats they fill. */
  private readonly vectors: { parts: string[]; filled: number }[] = [];
  private readonly copies: { type: VaryingType; expression: string }[] = [];
  private readonly known = new Map<string, string>();

  /** `capacity`: vectors of four floats that may be handed on. */
  constructor(private readonly capacity: number) {}

  /** How the fragment shader reads an expression of uniforms. It has to mean the same in both shaders. */
  take(type: VaryingType, expression: string): string {
    return this.handOn(type, expression) ?? this.copy(type, expression);
  }

  /** The same; null if it does not fit. */
  handOn(type: VaryingType, expression: string): string | null {
    const known = this.known.get(expression);
    if (known !== undefined) return known;
    const read = this.place(type, expression);
    if (read !== null) this.known.set(expression, read);
    return read;
  }

  private place(type: VaryingType, expression: string): string | null {
    if (type === 'mat3') {
      if (this.vectors.length + 3 > this.capacity) return null;
      const columns = [0, 1, 2].map((k) => this.place('vec3', `${expression}[${k}]`));
      return `mat3(${columns.join(', ')})`;
    }
    const width = floats[type];
    let k = this.vectors.findIndex(({ filled }) => filled + width <= 4);
    if (k < 0) {
      if (this.vectors.length >= this.capacity) return null;
      k = this.vectors.push({ parts: [], filled: 0 }) - 1;
    }
    const vector = this.vectors[k];
    const from = vector.filled;
    vector.parts.push(expression);
    vector.filled += width;
    return width === 4 ? `corner${k}` : `corner${k}.${'xyzw'.slice(from, from + width)}`;
  }

  private copy(type: VaryingType, expression: string): string {
    const known = this.copies.findIndex((other) => other.expression === expression);
    return `copied${known >= 0 ? known : this.copies.push({ type, expression }) - 1}`;
  }

  /** For the fragment shader, before its functions. */
  get declared(): string {
    return [
      ...this.vectors.map((_, k) => `flat in vec4 corner${k};`),
      ...this.copies.map(({ type }, k) => `${type} copied${k};`),
    ].join('\n');
  }

  /** For the fragment shader, at the start of `main`. */
  get start(): string {
    return this.copies.map(({ expression }, k) => `copied${k} = ${expression};`).join(' ');
  }

  /** For the vertex shader, before its functions. */
  get handed(): string {
    return this.vectors.map((_, k) => `flat out vec4 corner${k};`).join('\n');
  }

  /** For the vertex shader, in `main`. */
  get given(): string {
    return this.vectors
      .map(({ parts, filled }, k) => {
        const rest = Array.from({ length: 4 - filled }, () => '0.0');
        return `corner${k} = vec4(${[...parts, ...rest].join(', ')});`;
      })
      .join('\n  ');
  }
}
