import type { LightProp } from '../../core/kind/prop';
import type { VaryingType } from '../shader/flat-varyings';

/** What of a light stands in the code: its form, and whether it casts a shadow. Everything else is a uniform. */
export interface LightForm {
  form: LightProp['shape'];
  shadow: boolean;
}

export const mostLights = 8;
/** Lights that cast shadows in one shot. */
export const mostShadows = 4;

export const lightForms = (lights: readonly LightProp[]): LightForm[] => {
  let shadows = 0;
  return lights.map((light) => ({
    form: light.shape,
    shadow: light.shadow > 0 && shadows++ < mostShadows,
  }));
};

export const lightKey = (forms: readonly LightForm[]): string =>
  forms.map(({ form, shadow }) => `${form}${shadow ? '*' : ''}`).join(' ');

/** The uniforms that `lightGlsl` reads. */
export const lightDeclared = (forms: readonly LightForm[]): string => {
  const count = Math.max(1, forms.length);
  return `uniform vec3 lightColour[${count}]; uniform vec4 lightPlace[${count}]; uniform vec3 lightWay[${count}]; uniform vec4 lightMore[${count}];`;
};

/**
 * `lightUp(colour, n, view, at, surface)`: how bright a surface is; `surface` is scatter, shine, polish and own light. Every
 * light is written out, since loops with branches cost their full time where they are drawn in software. A light that casts
 * shadows calls `shadowOf(k, at, n, to, far)`, which whoever uses this has to give: 1 in light, 0 in shadow; `to` is the way
 * to the light, `far` how far it is. `read`: how a number of a light is read, where not as the uniform.
 */
export function lightGlsl(
  forms: readonly LightForm[],
  read: (type: VaryingType, uniform: string) => string = (_, uniform) => uniform,
): string {
  const each = forms
    .map(({ form, shadow }, k) => {
      const strength = read('vec3', `lightColour[${k}]`);
      if (form === 'ambient') return `  scattered += ${strength};`;
      const more = (part: string): string => read('float', `lightMore[${k}].${part}`);
      const shade = shadow ? `strength *= mix(1.0, shadowOf(${k}, at, n, to, far), ${more('w')});` : '';
      const way = (): string => read('vec3', `lightWay[${k}]`);
      const nears =
        form === 'sun'
          ? `vec3 to = ${way()}; float far = 1e3;`
          : `vec3 to = ${read('vec3', `lightPlace[${k}].xyz`)} - at; float far = length(to); to /= max(far, 1e-5);
    { float d = far / ${read('float', `lightPlace[${k}].w`)}; strength /= 1.0 + d * d; }`;
      const cone =
        form === 'spot' ? `strength *= smoothstep(${more('x')}, ${more('y')}, dot(to, ${way()}));` : '';
      return `  {
    vec3 strength = ${strength};
    ${nears}
    ${cone}
    ${shade}
    float soft = ${more('z')};
    float facing = clamp((dot(n, to) + soft * 0.5) / (1.0 + soft * 0.5), 0.0, 1.0);
    scattered += strength * facing;
    float polish = exp2(surface.z * 10.64 * (1.0 - soft * 0.6));
    mirrored += strength * pow(max(0.0, dot(n, normalize(to + view))), polish) * step(0.0, facing - 1e-4);
  }`;
    })
    .join('\n');
  return `
vec3 lightUp(vec3 colour, vec3 n, vec3 view, vec3 at, vec4 surface) {
  vec3 scattered = vec3(0.0);
  vec3 mirrored = vec3(0.0);
${each}
  return colour * (scattered * surface.x + surface.w) + mirrored * surface.y;
}
`;
}

/** Numbers of lights, as `lightDeclared` has them. Their way is that from what they aim at to them, 1 long. */
export function lightUniforms(lights: readonly LightProp[]): Record<string, Float32Array> {
  const count = Math.max(1, lights.length);
  const [colour, way] = [new Float32Array(3 * count), new Float32Array(3 * count)];
  const [place, more] = [new Float32Array(4 * count), new Float32Array(4 * count)];
  lights.forEach((light, k) => {
    const to = light.place.map((v, axis) => v - light.aim[axis]);
    const long = Math.hypot(...to) || 1;
    for (let axis = 0; axis < 3; axis++) {
      colour[3 * k + axis] = light.colour[axis] * light.strength;
      way[3 * k + axis] = to[axis] / long;
    }
    place.set([...light.place, Math.max(1e-4, light.reach)], 4 * k);
    const edge = Math.cos(light.angleRad / 2);
    // The inner cone, where the light is full: a large light fades over most of its opening.
    const full = Math.cos((light.angleRad / 2) * (1 - Math.max(0.02, light.soft)));
    more.set([edge, full, light.soft, light.shadow], 4 * k);
  });
  return { lightColour: colour, lightPlace: place, lightWay: way, lightMore: more };
}
