import type { ControlSpec } from '../../core/kind/controls';
import { mostListed, type FieldKind } from '../../core/kind/kind';
import type { PlanSource } from '../../core/patch/plan';
import { PartError, specOf, valueText, type NumberRead, type TextureRead } from '../shader/assemble';
import { isVaryingType, type FlatVaryings } from '../shader/flat-varyings';

/** What the assembler has to know of a field node. */
export interface FieldPart {
  id: string;
  kind: FieldKind;
  inputs: Record<string, PlanSource[]>;
  codeOf(control: string): string | null;
}

/** What the functions of fields need to be declared before them: a place on a surface, and how it looks there. */
export const hitDeclared = `
struct Hit { float d; vec3 colour; vec4 surface; };
Hit joinHits(Hit a, Hit b, vec2 j) { return Hit(j.x, mix(a.colour, b.colour, j.y), mix(a.surface, b.surface, j.y)); }
`;

/** More than this does not go through compilers in a time that a performer would wait. */
export const mostFields = 96;

const nowhere = 'return 1e5;';

/**
 * Writes fields as GLSL: for each node `d_k(p)`, the distance of a place, and `h_k(p)`, that with how the surface looks; what
 * they read is declared and listed on the way.
 */
export class FieldWriter {
  readonly declarations: string[] = [];
  readonly helpers = new Set<string>();
  readonly functions: string[] = [];
  readonly textures: TextureRead[] = [];
  readonly numbers: NumberRead[] = [];
  readonly members: string[] = [];
  private readonly index = new Map<string, number>();
  private readonly used = new Set<string>();
  private readonly looks: (() => string)[] = [];

  constructor(
    private readonly partOf: (id: string) => FieldPart | null,
    private readonly corners: FlatVaryings,
  ) {}

  private number(part: FieldPart, k: number, name: string, type: string, spec: ControlSpec | null): string {
    const uniform = `f${k}_${name}`;
    if (!this.used.has(uniform)) {
      this.used.add(uniform);
      this.declarations.push(
        type === 'vec4list' ? `uniform vec4 ${uniform}[${mostListed}];` : `uniform ${type} ${uniform};`,
      );
      this.numbers.push({ uniform, node: part.id, control: name, spec });
    }
    return isVaryingType(type) ? this.corners.take(type, uniform) : uniform;
  }

  private image(part: FieldPart, k: number, input: string): string {
    const call = `fr${k}_${input}`;
    if (this.used.has(call)) return call;
    this.used.add(call);
    const source = part.inputs[input]?.[0];
    if (!source) this.functions.push(`vec4 ${call}(vec2 at) { return vec4(0.0); }`);
    else {
      const sampler = `ft${k}_${input}`;
      this.textures.push({ sampler, source, back: null, size: `fs${k}_${input}` });
      this.declarations.push(`uniform sampler2D ${sampler};`);
      // No mipmaps and no slopes: rays march in loops, where neighbouring pixels are not at the same step.
      this.functions.push(`vec4 ${call}(vec2 at) { return textureLod(${sampler}, at, 0.0); }`);
    }
    return call;
  }

  private translate(part: FieldPart, k: number, body: string): string {
    const { kind } = part;
    return body
      .replace(/@([A-Za-z]\w*)\(/g, (_, input: string) => `${this.image(part, k, input)}(`)
      .replace(/\$([A-Za-z]\w*)\?/g, (_, name: string) => part.codeOf(name) ?? 'true')
      .replace(/\$([A-Za-z]\w*)/g, (_, name: string) => {
        const derived = kind.derived?.[name];
        if (derived) return this.number(part, k, name, derived, null);
        const spec = specOf(kind, name);
        return valueText(part, name, spec, (type) => this.number(part, k, name, type, spec));
      });
  }

  /** Writes the functions of a field and of all that it is made of; gives its number. */
  field(id: string): number {
    const known = this.index.get(id);
    if (known !== undefined) return known;
    const part = this.partOf(id);
    const k = this.index.size;
    this.index.set(id, k);
    if (k >= mostFields)
      throw new PartError(
        id,
        `More than ${mostFields} fields in one shot cannot be drawn. Use Field Swarm or Field Repeat for what is alike.`,
      );
    if (!part) {
      this.nothing(k);
      return k;
    }
    this.members.push(id);
    const inputs = Object.entries(part.kind.inputs)
      .filter(([, spec]) => spec.carries === 'field')
      .flatMap(([name]) => part.inputs[name].filter(({ back }) => !back).map(({ node }) => this.field(node)));
    for (const helper of part.kind.helpers ?? []) this.helpers.add(helper);
    this.functions.push(`// ${part.kind.label}`);
    this.write(part, k, inputs);
    return k;
  }

  /** The functions that say how a surface looks, to be written after all distances: these are asked far more often. */
  takeLooks(): string[] {
    return this.looks.map((look) => look());
  }

  private nothing(k: number): void {
    this.functions.push(`float d_${k}(vec3 p) { ${nowhere} }`);
    this.looks.push(() => `Hit h_${k}(vec3 p) { return Hit(1e5, vec3(0.0), vec4(0.0)); }`);
  }

  private write(part: FieldPart, k: number, inputs: readonly number[]): void {
    const { field } = part.kind;
    const of = (body: string): string => this.translate(part, k, body);
    const distance = (text: string): void => void this.functions.push(text);
    const look = (text: () => string): void => void this.looks.push(text);
    if (field.type === 'solid') {
      distance(`float d_${k}(vec3 p) { ${of(field.distance)} }`);
      look(
        () =>
          `Hit h_${k}(vec3 p) { return Hit(d_${k}(p), ${of('$colour')}.rgb, vec4(1.0, ${of('$shine')}, 0.55, ${of('$ownLight')})); }`,
      );
      return;
    }
    if (inputs.length === 0) {
      this.nothing(k);
      return;
    }
    const [first, ...others] = inputs;
    if (field.type === 'warp') {
      const after = field.distance;
      distance(`vec3 w_${k}(vec3 p) { ${of(field.place)} }
${after ? `float a_${k}(vec3 p, float d) { ${of(after)} }` : ''}
float d_${k}(vec3 p) { float d = d_${first}(w_${k}(p)); return ${after ? `a_${k}(p, d)` : 'd'}; }`);
      look(
        () =>
          `Hit h_${k}(vec3 p) { Hit h = h_${first}(w_${k}(p)); ${after ? `h.d = a_${k}(p, h.d);` : ''} return h; }`,
      );
      return;
    }
    distance(`vec2 j_${k}(float a, float b) { ${of(field.join)} }`);
    if (field.type === 'join') {
      const joins = others.map((o) => `d = j_${k}(d, d_${o}(p)).x;`).join(' ');
      distance(`float d_${k}(vec3 p) { float d = d_${first}(p); ${joins} return d; }`);
      const hits = others
        .map((o) => `{ Hit o = h_${o}(p); h = joinHits(h, o, j_${k}(h.d, o.d)); }`)
        .join(' ');
      look(() => `Hit h_${k}(vec3 p) { Hit h = h_${first}(p); ${hits} return h; }`);
      return;
    }
    const count = of('$count');
    distance(`vec3 w_${k}(vec3 p, int i) { ${of(field.place)} }
float a_${k}(vec3 p, float d, int i) { ${of(field.distance)} }
float d_${k}(vec3 p) {
  float d = a_${k}(p, d_${first}(w_${k}(p, 0)), 0);
  for (int i = 1; i < int(${count}); i++) d = j_${k}(d, a_${k}(p, d_${first}(w_${k}(p, i)), i)).x;
  return d;
}`);
    look(
      () => `Hit h_${k}(vec3 p) {
  Hit h = h_${first}(w_${k}(p, 0)); h.d = a_${k}(p, h.d, 0);
  for (int i = 1; i < int(${count}); i++) { Hit o = h_${first}(w_${k}(p, i)); o.d = a_${k}(p, o.d, i); h = joinHits(h, o, j_${k}(h.d, o.d)); }
  return h;
}`,
    );
  }
}
