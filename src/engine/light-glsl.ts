import type { LightProp } from '../core/prop';

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

/**
 * `lightUp(colour, n, view, at, surface)`: how bright a surface is; `surface` is scatter, shine, polish and own light. Every
 * light is written out, since loops with branches cost their full time where they are drawn in software. A light that casts
 * shadows calls `shadowOf(k, at, n, to, far)`, which whoever uses this has to give: 1 in light, 0 in shadow; `to` is the way
 * to the light, `far` how far it is.
 */
export function lightGlsl(forms: readonly LightForm[]): string {
  const each = forms
    .map(({ form, shadow }, k) => {
      const strength = `lightColour[${k}].rgb * lightColour[${k}].a`;
      if (form === 'ambient') return `  scattered += ${strength};`;
      const shade = shadow ? `strength *= mix(1.0, shadowOf(${k}, at, n, to, far), lightMore[${k}].w);` : '';
      const nears =
        form === 'sun'
          ? `vec3 to = normalize(lightPlace[${k}].xyz - lightAim[${k}].xyz); float far = 1e3;`
          : `vec3 to = lightPlace[${k}].xyz - at; float far = length(to); to /= max(far, 1e-5);
    { float d = far / max(lightPlace[${k}].w, 1e-4); strength /= 1.0 + d * d; }`;
      const cone =
        form === 'spot'
          ? `strength *= smoothstep(lightMore[${k}].x, lightMore[${k}].y, dot(to, normalize(lightPlace[${k}].xyz - lightAim[${k}].xyz)));`
          : '';
      return `  {
    vec3 strength = ${strength};
    ${nears}
    ${cone}
    ${shade}
    float soft = lightMore[${k}].z;
    float facing = clamp((dot(n, to) + soft * 0.5) / (1.0 + soft * 0.5), 0.0, 1.0);
    scattered += strength * facing;
    float polish = exp2(surface.z * 10.64 * (1.0 - soft * 0.6));
    mirrored += strength * pow(max(0.0, dot(n, normalize(to + view))), polish) * step(0.0, facing - 1e-4);
  }`;
    })
    .join('\n');
  const count = Math.max(1, forms.length);
  return `
uniform vec4 lightColour[${count}]; uniform vec4 lightPlace[${count}]; uniform vec4 lightAim[${count}]; uniform vec4 lightMore[${count}];
vec3 lightUp(vec3 colour, vec3 n, vec3 view, vec3 at, vec4 surface) {
  vec3 scattered = vec3(0.0);
  vec3 mirrored = vec3(0.0);
${each}
  return colour * (scattered * surface.x + surface.w) + mirrored * surface.y;
}
`;
}

/** Numbers of lights for `lightGlsl`. */
export function lightUniforms(lights: readonly LightProp[]): Record<string, Float32Array> {
  const count = Math.max(1, lights.length);
  const [colour, place, aim, more] = Array.from({ length: 4 }, () => new Float32Array(4 * count));
  lights.forEach((light, k) => {
    colour.set([light.colour[0], light.colour[1], light.colour[2], light.strength], 4 * k);
    place.set([...light.place, light.reach], 4 * k);
    aim.set(light.aim, 4 * k);
    const edge = Math.cos(light.angleRad / 2);
    // The inner cone, where the light is full: a large light fades over most of its opening.
    const full = Math.cos((light.angleRad / 2) * (1 - Math.max(0.02, light.soft)));
    more.set([edge, full, light.soft, light.shadow], 4 * k);
  });
  return { lightColour: colour, lightPlace: place, lightAim: aim, lightMore: more };
}
