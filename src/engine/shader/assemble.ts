import { vertexHanding } from '../gpu/full-screen';
import { formulaToGlsl } from '../../core/formula/glsl';
import { FormulaError, parseFormula, type Expression } from '../../core/formula/parse';
import type { ChoiceSpec, ControlSpec } from '../../core/kind/controls';
import type { GlslType, ImageKind } from '../../core/kind/kind';
import type { PlanSource } from '../../core/patch/plan';
import { FlatVaryings, isVaryingType, type VaryingType } from './flat-varyings';
import { keptApart } from '../../core/document/return-settings';

/** A picture that a shader reads as a texture. */
export interface TextureRead {
  /** Name of the sampler. */
  sampler: string;
  /** Where it comes from: a wire, the result of an earlier pass (`previous` is the one before), or a sheet of the node. */
  source: PlanSource | PassRead | SheetRead;
  /** Uniform with share kept and limit, on return wires. */
  back: string | null;
  /** Uniform with the size in pixels, where the code asks for it. */
  size: string;
  /** Uniform that says how past frames lie in it. */
  cells?: string;
}

interface PassRead {
  pass: string;
}

interface SheetRead {
  sheet: string;
  /** The node it belongs to. */
  of: string;
}

/** A uniform that follows a control or a derived number of a node. */
export interface NumberRead {
  uniform: string;
  node: string;
  control: string;
  spec: ControlSpec | null;
}

export interface Assembled {
  fragment: string;
  /** Absent: the one that all pictures share. */
  vertex?: string;
  textures: TextureRead[];
  numbers: NumberRead[];
  /** Nodes drawn by this shader, the last one giving the result. */
  members: string[];
}

/** What the assembler has to know of an image node. */
export interface Part {
  id: string;
  kind: ImageKind;
  inputs: Record<string, PlanSource[]>;
  /** What of a control's value stands in the code, as the function `codeOf` says. */
  codeOf(control: string): string | null;
}

/** A node whose part of a shader cannot be written. `node` is the one to blame, wherever its code was joined into. */
export class PartError extends Error {
  override name = 'PartError';
  constructor(
    readonly node: string,
    message: string,
  ) {
    super(message);
  }
}

/** The most stops a gradient may have; the schema says the same. */
export const mostStops = 16;

/**
 * What of a control's value stands in the code of the shader, so that another means another shader: a formula, the option
 * of a choice, a toggle that nothing drives, the number of a gradient's stops, whether a number that switches something is 0. What is not chosen then costs nothing: a
 * branch in a shader takes its registers on every GPU, and on some its time. Null for all that can be moved: numbers,
 * colours and places never compile.
 */
export function codeOf(spec: ControlSpec, value: unknown, driven: boolean): string | null {
  switch (spec.type) {
    case 'formula':
    case 'choice':
      return String(value);
    case 'gradient':
      return String((value as unknown[]).length);
    case 'toggle':
      return driven ? null : String(value);
    case 'number':
      return spec.onOff !== undefined && !driven
        ? String(value !== (spec.onOff === true ? 0 : spec.onOff))
        : null;
    case 'vector':
      return spec.onOff && !driven ? String((value as number[]).some((v) => v !== 0)) : null;
    default:
      return null;
  }
}

/** Controls whose value is never a literal: only whether it is off may stand in the code. */
const isSwitch = (spec: ControlSpec): boolean => spec.type === 'number' || spec.type === 'vector';

const choiceIndex = (spec: ChoiceSpec, value: string): number =>
  Math.max(0, Object.keys(spec.options).indexOf(value));

const glslTypes: Partial<Record<ControlSpec['type'], string>> = {
  number: 'float',
  whole: 'float',
  angle: 'float',
  toggle: 'bool',
  colour: 'vec4',
  point: 'vec2',
  vector: 'vec3',
};

const head = `#version 300 es
precision highp float;
precision highp int;
precision highp sampler2D;
in vec2 place;
out vec4 result;
uniform float aspect;
uniform vec2 pixel;
`;

// Twin of guardValue in core: unchanged to half the limit, then bending under it.
export const guardGlsl = `
vec4 guarded(vec4 v, float limit) {
  float knee = limit * 0.5;
  vec4 over = max(abs(v) - knee, 0.0);
  return sign(v) * (min(abs(v), knee) + over * knee / (knee + over));
}
`;

/** The control of a kind that its code asks for. */
export function specOf(
  { id, controls }: { id: string; controls: Readonly<Record<string, ControlSpec>> },
  name: string,
): ControlSpec {
  const spec = controls[name];
  if (!spec) throw new TypeError(`${id}: its shader asks for a control ${name} that it does not have.`);
  return spec;
}

/** How code reads a control: as what stands there of its value, else as the number that `number` declares. */
export function valueText(
  part: { kind: { id: string }; codeOf(control: string): string | null },
  name: string,
  spec: ControlSpec,
  number: (type: string) => string,
): string {
  const code = isSwitch(spec) ? null : part.codeOf(name);
  if (code !== null) return spec.type === 'choice' ? String(choiceIndex(spec, code)) : code;
  const type = glslTypes[spec.type];
  if (!type) throw new TypeError(`${part.kind.id}: ${name} cannot be used in a shader.`);
  return number(type);
}

const titleOf = (k: number, label: string): string => `// ${k}: ${label}`;

/** The code with the name of each node where its functions begin, for people to read. */
export function readableCode({ fragment, members }: Assembled, nameOf: (id: string) => string): string {
  const first = members.length - 1;
  return fragment.replace(/^\/\/ (\d+): (.+)$/gm, (line, k: string, label: string) => {
    const id = members[first - Number(k)];
    return id === undefined ? line : `// ${nameOf(id).replace(/\s+/g, ' ')} (${label})`;
  });
}

class Writer {
  readonly declarations: string[] = [];
  readonly helpers = new Set<string>();
  readonly functions: string[] = [];
  readonly textures: TextureRead[] = [];
  readonly numbers: NumberRead[] = [];
  readonly members: string[] = [];
  private readonly used = new Map<string, string>();
  /** Function of each node, by its id. */
  private readonly names = new Map<string, string>();
  /** Uniforms that are declared in both shaders. */
  private readonly shared: string[] = [];
  private readonly varyings: FlatVaryings;

  constructor(
    private readonly joined: (source: PlanSource) => Part | null,
    capacity: number,
  ) {
    this.varyings = new FlatVaryings(capacity);
  }

  private number(part: Part, k: number, name: string, type: string, spec: ControlSpec | null): string {
    const uniform = `u${k}_${name}`;
    if (!this.used.has(uniform)) {
      this.used.set(uniform, type);
      this.shared.push(`uniform ${type} ${uniform};`);
      this.numbers.push({ uniform, node: part.id, control: name, spec });
    }
    // What a performer writes by hand is faulted by the names in it.
    const byHand = part.kind.paint.type === 'shader' && part.kind.paint.alone;
    return byHand || !isVaryingType(type) ? uniform : this.read(type, uniform);
  }

  private read(type: VaryingType, uniform: string): string {
    return this.varyings.handOn(type, uniform) ?? uniform;
  }

  private gradient(part: Part, k: number, name: string, spec: ControlSpec): string {
    const call = `g${k}_${name}`;
    if (this.used.has(call)) return call;
    this.used.set(call, 'gradient');
    const base = `u${k}_${name}`;
    this.numbers.push({ uniform: base, node: part.id, control: name, spec });
    // Written out for as many stops as there are: a loop over a list costs as much as a noise.
    const stops = Math.min(mostStops, Math.max(1, Number(part.codeOf(name))));
    this.shared.push(`uniform vec4 ${base}_colours[${stops}];`);
    if (stops > 1) this.shared.push(`uniform vec2 ${base}_rise[${stops - 1}];`);
    const colour = (k: number): string => this.read('vec4', `${base}_colours[${k}]`);
    const steps = Array.from({ length: stops - 1 }, (_, k) => {
      const rise = this.read('vec2', `${base}_rise[${k}]`);
      return `  { vec2 rise = ${rise}; v = mix(v, ${colour(k + 1)}, clamp(t * rise.x + rise.y, 0.0, 1.0)); }`;
    });
    this.functions.push(
      [`vec4 ${call}(float t) {`, `  vec4 v = ${colour(0)};`, ...steps, '  return v;', '}'].join('\n'),
    );
    return call;
  }

  private formula(part: Part, k: number, name: string, spec: ControlSpec): string {
    const call = `q${k}_${name}`;
    if (this.used.has(call)) return call;
    this.used.set(call, 'formula');
    const variables = spec.type === 'formula' ? spec.variables : [];
    const tree = this.parse(part, name, spec.label, variables);
    const args = variables.map((n) => `float a_${n}`).join(', ');
    this.functions.push(`float ${call}(${args}) { return ${formulaToGlsl(tree, (n) => `a_${n}`)}; }`);
    return call;
  }

  private parse(part: Part, name: string, label: string, variables: readonly string[]): Expression {
    try {
      return parseFormula(part.codeOf(name) ?? '', (n) => variables.includes(n), variables);
    } catch (error) {
      if (!(error instanceof FormulaError)) throw error;
      throw new PartError(part.id, `${label}: ${error.message} (at ${error.position + 1})`);
    }
  }

  private passNames(part: Part): ReadonlySet<string> {
    const { paint } = part.kind;
    const names = new Set<string>();
    if (paint.type !== 'passes') return names;
    names.add('previous');
    for (const pass of paint.passes) if (pass.name) names.add(pass.name);
    return names;
  }

  private sampler(k: number, input: string, source: TextureRead['source'], back: boolean): string {
    const sampler = `t${k}_${input}`;
    this.textures.push({ sampler, source, back: back ? `k${k}_${input}` : null, size: `s${k}_${input}` });
    this.declarations.push(`uniform sampler2D ${sampler};`);
    return sampler;
  }

  /** Writes the function that reads an input, an earlier pass or a sheet of a node; gives its name. */
  private reader(part: Part, k: number, input: string): string {
    const call = `r${k}_${input}`;
    if (this.used.has(call)) return call;
    this.used.set(call, 'reader');
    const { paint } = part.kind;
    const sheet = 'sheets' in paint ? paint.sheets?.[input] : undefined;
    if (sheet) {
      const sampler = this.sampler(k, input, { sheet: input, of: part.id }, false);
      if (sheet.from === 'past') this.pastReader(k, input, call, sampler);
      else this.functions.push(`vec4 ${call}(vec2 p) { return texture(${sampler}, p); }`);
      return call;
    }
    if (this.passNames(part).has(input)) {
      const sampler = this.sampler(k, input, { pass: input }, false);
      this.functions.push(`vec4 ${call}(vec2 p) { return texture(${sampler}, p); }`);
      return call;
    }
    const source = part.inputs[input]?.[0];
    if (!source) {
      this.functions.push(`vec4 ${call}(vec2 p) { return vec4(0.0); }`);
      return call;
    }
    const inner = this.joined(source);
    if (inner) {
      const name = this.node(inner);
      this.functions.push(`vec4 ${call}(vec2 p) { return ${name}(p); }`);
      return call;
    }
    const settings = source.back?.back;
    const sampler = this.sampler(k, input, source, settings !== undefined && !keptApart(settings));
    const place =
      settings?.reading === 'crisp'
        ? `(floor(p * ${this.sizeOf(part, k, input)}) + 0.5) / s${k}_${input}`
        : 'p';
    const pixels = `texture(${sampler}, ${place})`;
    const back = this.textures[this.textures.length - 1].back;
    if (back) {
      this.helpers.add(guardGlsl);
      this.declarations.push(`uniform vec2 ${back};`);
      this.functions.push(`vec4 ${call}(vec2 p) { return guarded(${pixels} * ${back}.x, ${back}.y); }`);
    } else this.functions.push(`vec4 ${call}(vec2 p) { return ${pixels}; }`);
    return call;
  }

  /** The last frames lie in one picture, as cells in rows from the lower left; `cells`: columns, rows, newest, how many. */
  private pastReader(k: number, input: string, call: string, sampler: string): void {
    const cells = `c${k}_${input}`;
    this.textures[this.textures.length - 1].cells = cells;
    this.declarations.push(`uniform vec4 ${cells};`);
    const size = this.declareSize(k, input);
    this.functions.push(`vec4 ${call}(vec2 p, float back) {
  float cell = mod(${cells}.z - clamp(floor(back + 0.5), 0.0, ${cells}.w - 1.0) + ${cells}.x * ${cells}.y, ${cells}.x * ${cells}.y);
  vec2 edge = 0.5 * ${cells}.xy / ${size};
  vec2 at = clamp(p, edge, 1.0 - edge) + vec2(mod(cell, ${cells}.x), floor(cell / ${cells}.x));
  return texture(${sampler}, at / ${cells}.xy);
}`);
  }

  private declareSize(k: number, input: string): string {
    const uniform = `s${k}_${input}`;
    if (!this.used.has(uniform)) {
      this.used.set(uniform, 'vec2');
      this.declarations.push(`uniform vec2 ${uniform};`);
    }
    return uniform;
  }

  /** Reads one pixel of a sheet by its numbers, unmixed. */
  private fetcher(part: Part, k: number, input: string): string {
    this.reader(part, k, input);
    const call = `x${k}_${input}`;
    if (this.used.has(call)) return call;
    this.used.set(call, 'fetch');
    this.functions.push(`vec4 ${call}(int x, int y) { return texelFetch(t${k}_${input}, ivec2(x, y), 0); }`);
    return call;
  }

  private sizeOf(part: Part, k: number, input: string): string {
    this.reader(part, k, input);
    const uniform = `s${k}_${input}`;
    const texture = this.textures.find((t) => t.size === uniform);
    if (!texture) return '(1.0 / pixel)'; // joined or empty: the same pixels as what is drawn
    return this.declareSize(k, input);
  }

  private translate(
    part: Part,
    k: number,
    body: string,
    derived: Readonly<Record<string, GlslType>>,
  ): string {
    return body
      .replace(/([A-Za-z]\w*)~\(/g, (_, own: string) => `${own}_${k}(`)
      .replace(/@([A-Za-z]\w*)\.at\(/g, (_, input: string) => `${this.fetcher(part, k, input)}(`)
      .replace(/@([A-Za-z]\w*)\.wired/g, (_, input: string) => String(Boolean(part.inputs[input]?.length)))
      .replace(/@([A-Za-z]\w*)\.size/g, (_, input: string) => this.sizeOf(part, k, input))
      .replace(/@([A-Za-z]\w*)\(/g, (_, input: string) => `${this.reader(part, k, input)}(`)
      .replace(/\$([A-Za-z]\w*)\?/g, (_, name: string) => {
        const spec = part.kind.controls[name];
        return part.codeOf(name) ?? `(${this.number(part, k, name, 'float', spec)} != 0.0)`;
      })
      .replace(/\$([A-Za-z]\w*)/g, (_, name: string) => {
        if (Object.hasOwn(derived, name)) return this.number(part, k, name, derived[name], null);
        const spec = specOf(part.kind, name);
        if (spec.type === 'gradient') return this.gradient(part, k, name, spec);
        if (spec.type === 'formula') return this.formula(part, k, name, spec);
        return valueText(part, name, spec, (type) => this.number(part, k, name, type, spec));
      });
  }

  /** Writes the function of one node and of all that is joined into it; gives its name. */
  node(part: Part, pass = 0): string {
    const written = this.names.get(part.id);
    if (written) return written;
    const k = this.members.length;
    // Numbered, not named: neither an id nor a name of the document may change what is compiled.
    const name = `n_${k}`;
    this.names.set(part.id, name);
    // The index is taken before what lies above is written, so that names inside one node never change with it.
    this.members.push(part.id);
    const { paint } = part.kind;
    if (paint.type !== 'shader' && paint.type !== 'passes')
      throw new TypeError(`${part.kind.id} has no shader.`);
    for (const helper of paint.helpers ?? []) this.helpers.add(helper);
    const body = paint.type === 'shader' ? paint.body : paint.passes[pass].body;
    const derived = paint.derived ?? {};
    const [first] = Object.entries(part.kind.inputs);
    const sameFirst = paint.type === 'shader' && first && (first[1].reads ?? 'same') === 'same';
    const code = this.translate(part, k, body, derived);
    const wet = paint.type === 'shader' && paint.wet ? this.translate(part, k, '$amount', derived) : null;
    const source = first && (sameFirst || wet) ? this.reader(part, k, first[0]) : null;
    const title = titleOf(k, part.kind.label);
    if (paint.type === 'shader' && paint.code) {
      const own = this.translate(part, k, paint.code, derived);
      // The lines of a text of the performer's are counted by themselves, as source 1: a fault then names the line.
      this.functions.push(paint.alone ? `#line 1 1\n${own}\n#line 1 0` : own);
    }
    if (!source) {
      this.functions.push(`${title}\nvec4 ${name}(vec2 p) {\n${code}\n}`);
    } else if (sameFirst) {
      this.functions.push(`${title}\nvec4 f_${k}(vec2 p, vec4 source) {\n${code}\n}`);
      const mixed = wet ? `mix(source, f_${k}(p, source), ${wet})` : `f_${k}(p, source)`;
      this.functions.push(`vec4 ${name}(vec2 p) { vec4 source = ${source}(p); return ${mixed}; }`);
    } else {
      // A loop that is not entered, where an `if` would do: renderers in software work out both sides of an `if`.
      this.functions.push(`${title}\nvec4 f_${k}(vec2 p) {\n${code}\n}`);
      this.functions.push(
        `vec4 ${name}(vec2 p) { vec4 v = f_${k}(p); for (float share = ${wet}; share < 1.0; share = 1.0) v = mix(${source}(p), v, share); return v; }`,
      );
    }
    return name;
  }

  finish(call: string): Assembled {
    const fragment = [
      head,
      ...this.shared,
      this.varyings.declared,
      ...this.declarations,
      ...this.helpers,
      ...this.functions,
      `void main() { result = ${call}(place); }`,
      '',
    ].join('\n');
    const { handed, given } = this.varyings;
    return {
      fragment,
      vertex: given ? vertexHanding([...this.shared, handed].join('\n'), given) : undefined,
      textures: this.textures,
      numbers: this.numbers,
      members: [...this.members].reverse(),
    };
  }
}

/**
 * Writes the fragment shader that draws one node. Inputs for which `joined` gives a part become functions of the same
 * shader, all others are read as textures. `capacity`: how many vectors of numbers the varyings of the picture hand on. Throws
 * PartError if a formula control cannot be read.
 */
export function assemble(
  part: Part,
  joined: (source: PlanSource) => Part | null,
  pass = 0,
  capacity = 0,
): Assembled {
  const writer = new Writer(joined, capacity);
  return writer.finish(writer.node(part, pass));
}
