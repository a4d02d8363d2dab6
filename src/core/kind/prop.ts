import { assertNever } from '../assert-never';
import type { ImageRef } from './image-ref';
import type { Shape } from '../shape/shape';
import type { Rgba, Spread, Stop } from '../document/types';

export type Vec3 = readonly [number, number, number];

/** Moves the points of a body by the brightness of an image at their place on the picture. */
interface Lift {
  image: ImageRef;
  /** A second image that the first is multiplied with. */
  by: ImageRef | null;
  /** Scene units that full brightness lifts. */
  depth: number;
  /** The brightness that stays where it is. */
  middle: number;
  along: 'normal' | 'x' | 'y' | 'z';
}

/** How a body looks. Lengths in scene units (one is about the height of the view) unless named px. */
export interface Look {
  draw: 'surface' | 'lines' | 'points';
  /** Which lines of the shape are drawn. */
  lines: 'both' | 'rows' | 'columns' | 'edges';
  shading: 'lit' | 'flat' | 'glow';
  /** Blending: over what is behind, added to it, or multiplied with it. */
  blending: 'over' | 'add' | 'multiply';
  colour: Rgba;
  picture: ImageRef | null;
  /** Where it is dark, the body is cut away. */
  cutOut: ImageRef | null;
  lift: Lift | null;
  /** How much of the light it scatters, how much it mirrors, how small its highlights are (0 to 1), how much it shines by itself. */
  diffuse: number;
  shine: number;
  gloss: number;
  ownLight: number;
  /** Width of lines in pixels of the show's canvas; `leastWidthPx` holds it up far away. */
  widthPx: number;
  leastWidthPx: number;
  /** An image whose brightness is a factor on the width. */
  widthBy: ImageRef | null;
  /** Lines keep their pixels at any distance, or shrink with it. */
  widthShrinks: boolean;
  pointSize: number;
  /** Distance from the camera where the tint begins and where it is full. */
  fog: { near: number; far: number; colour: Rgba; amount: number };
  /** Hides what lies behind it. */
  solid: boolean;
  casts: boolean;
}

/** A look that shows a shape as it is; kinds start from it. */
export const plainLook: Look = {
  draw: 'surface',
  lines: 'both',
  shading: 'lit',
  blending: 'over',
  colour: [1, 1, 1, 1],
  picture: null,
  cutOut: null,
  lift: null,
  diffuse: 1,
  shine: 0.18,
  gloss: 0.5,
  ownLight: 0,
  widthPx: 1,
  leastWidthPx: 1,
  widthBy: null,
  widthShrinks: false,
  pointSize: 0.01,
  fog: { near: 0, far: 1, colour: [0, 0, 0, 1], amount: 0 },
  solid: true,
  casts: true,
};

/** How a shape is drawn by what it has: a surface if it has faces, else its lines, else its points. */
export const drawnAs = (shape: Shape): Look['draw'] =>
  shape.triangles.length ? 'surface' : shape.rows.length + shape.columns.length ? 'lines' : 'points';

export interface BodyProp {
  type: 'body';
  /** Node whose fault it is when it cannot be drawn. */
  node: string;
  shape: Shape;
  look: Look;
}

/** The part of a picture that a copy shows. cells: one of a grid, by number; place: what lies where the copy is at home. */
type PicturePart =
  | { by: 'cells'; columns: number; rows: number; cell: Float32Array }
  | { by: 'place'; frame: readonly [number, number] };

/** A part of space, soft at its rim, in which copies are changed. */
interface Region {
  form: 'ball' | 'box';
  place: Vec3;
  /** Radius, or half of the box's sides. */
  size: Vec3;
  /** Share of the size over which it fades. */
  soft: number;
  /** Moves copies along the way they look, or away from the middle of the region. */
  push: number;
  outward: boolean;
  turnRad: Vec3;
  scale: number;
  tint: Rgba;
}

/** Colours from a gradient over the copies. */
export interface Palette {
  stops: readonly Stop[];
  way: 'once' | 'repeat' | 'mirror';
  times: number;
}

export interface InstancesProp {
  type: 'instances';
  node: string;
  body: BodyProp | InstancesProp;
  count: number;
  /** Per-copy numbers, each `count` long or one for all. A buffer that was rewritten has another revision. */
  place: readonly Float32Array[];
  /** Radians about x, y and z, in that order. */
  turn: readonly Float32Array[];
  size: readonly Float32Array[];
  scale: Float32Array;
  tint: readonly Float32Array[];
  /** Points of a shape the copies stand on. */
  on: Shape | null;
  /** Turned so that +z looks along the normal of its point, at the camera, along `toward`, away from 0, 0, 0, or as it is. */
  facing: 'none' | 'camera' | 'normal' | 'direction' | 'outward';
  toward: Vec3;
  /** The place of the body's own space that stands on the copy's place and that it grows from. */
  anchor: Vec3;
  pixels: PixelSource | null;
  palette: Palette | null;
  part: PicturePart | null;
  region: Region | null;
  /** Seconds at which each copy begins, how long it grows and how long it stays (0: for good); null: all are there. */
  start: { at: Float32Array; riseSeconds: number; staySeconds: number; time: number } | null;
  /** How points serve more or fewer copies. */
  spread: Spread;
}

/** The body at the bottom of copies of copies. */
export const bodyOf = (prop: BodyProp | InstancesProp): BodyProp =>
  prop.type === 'body' ? prop : bodyOf(prop.body);

/** The levels of copies of copies, the innermost first; none for a body. */
export const levelsOf = (prop: BodyProp | InstancesProp): InstancesProp[] =>
  prop.type === 'body' ? [] : [...levelsOf(prop.body), prop];

/** Copies placed by the pixels of an image, read on the GPU. */
interface PixelSource {
  image: ImageRef;
  /** places: a pixel a copy; rows: one row for each attribute, a column a copy. */
  mode: 'places' | 'tints' | 'rows';
  /** Rows of place, tint, turn and size; -1 leaves that out. */
  rows: readonly [number, number, number, number];
  /** Pixel values 0..1 reach from -reach to reach. */
  reach: Vec3;
  /** Pixel values 0..1 turn from -turn to turn, radians. */
  turnReach: Vec3;
  sizeRange: readonly [number, number];
  spread: Spread;
}

export interface LightProp {
  type: 'light';
  shape: 'sun' | 'point' | 'spot' | 'ambient';
  colour: Rgba;
  strength: number;
  /** Where it stands; a sun shines from there to its aim. */
  place: Vec3;
  aim: Vec3;
  /** Distance at which a point or spot light has half its strength. */
  reach: number;
  /** Full opening of a spot. */
  angleRad: number;
  /** How large the light is, 0 to 1: softens its edge, its highlights and its shadows. */
  soft: number;
  /** How dark its shadows are, 0 to 1; 0 casts none. */
  shadow: number;
  /** Scene units from side to side in which a sun casts shadows. */
  shadowWidth: number;
}

export interface CameraProp {
  type: 'camera';
  projection: 'perspective' | 'straight';
  place: Vec3;
  lookAt: Vec3;
  rollRad: number;
  /** Vertical, for perspective. */
  fieldOfViewRad: number;
  /** Scene units from top to bottom, for straight-on. */
  viewHeight: number;
  near: number;
  far: number;
  /** Distance that is sharp. */
  focus: number;
  /** Share of the picture's height that something twice as far as the focus is blurred over; 0: all is sharp. */
  blur: number;
}

export type Prop = BodyProp | InstancesProp | LightProp | CameraProp;

/** Props by what they are for in a shot. */
export interface SortedProps {
  bodies: (BodyProp | InstancesProp)[];
  lights: LightProp[];
  /** The first one; null: none is wired. */
  camera: CameraProp | null;
}

/** Sorts props by what they are for, in their order. A new type of prop has to be given its place here. */
export function sortProps(props: readonly Prop[]): SortedProps {
  const sorted: SortedProps = { bodies: [], lights: [], camera: null };
  for (const prop of props) {
    switch (prop.type) {
      case 'body':
      case 'instances':
        sorted.bodies.push(prop);
        break;
      case 'light':
        sorted.lights.push(prop);
        break;
      case 'camera':
        sorted.camera ??= prop;
        break;
      default:
        assertNever(prop);
    }
  }
  return sorted;
}

export interface ShotSettings {
  background: Rgba;
  /** Samples a pixel at edges: 0 is off. */
  samples: 0 | 4;
  /** Brings added light into range. */
  tone: 'none' | 'soft';
  exposure: number;
  /** The picture, or how far everything is: 1 at the near distance, 0 at the far one. */
  gives: 'picture' | 'depth';
  depthRange: readonly [number, number];
  /** Pixels from side to side of each shadow map. */
  shadowSize: number;
}

/** How a field is rendered. */
export interface FieldShotSettings {
  background: Rgba;
  tone: 'none' | 'soft';
  exposure: number;
  /** Most steps along a ray. */
  steps: number;
  /** Distance at which a ray gives up. */
  far: number;
  /** Lights that cast shadows do. */
  shadows: boolean;
  /** How dark it gets where surfaces are close to each other, 0 to 1. */
  contact: number;
  lit: boolean;
  fog: { near: number; far: number; colour: Rgba; amount: number };
}

/** The camera a shot uses when none is wired: three-quarter view from above. */
export const defaultCamera: CameraProp = {
  type: 'camera',
  projection: 'perspective',
  place: [0.9, 0.7, 1.5],
  lookAt: [0, 0, 0],
  rollRad: 0,
  fieldOfViewRad: (40 * Math.PI) / 180,
  viewHeight: 1,
  near: 0.01,
  far: 100,
  focus: 1.9,
  blur: 0,
};

/** A light as it is when nothing is said of it. */
export const plainLight: LightProp = {
  type: 'light',
  shape: 'sun',
  colour: [1, 1, 1, 1],
  strength: 1,
  place: [0.6, 1, 0.8],
  aim: [0, 0, 0],
  reach: 1,
  angleRad: Math.PI / 4,
  soft: 0,
  shadow: 0,
  shadowWidth: 3,
};

/**
 * The lights a shot uses when none is wired. The sun goes round with the camera, as far as that stands from where it does at
 * home: what is looked at from behind is not dark.
 */
export function lightsFor(camera: CameraProp): LightProp[] {
  const azimuth = ({ place, lookAt }: CameraProp): number =>
    Math.atan2(place[0] - lookAt[0], place[2] - lookAt[2]);
  const turn = azimuth(camera) - azimuth(defaultCamera);
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  return defaultLights.map((light) => {
    const [x, y, z] = light.place;
    return { ...light, place: [x * cos + z * sin, y, z * cos - x * sin] };
  });
}

export const defaultLights: readonly LightProp[] = [
  { ...plainLight, colour: [1, 0.96, 0.9, 1] },
  { ...plainLight, shape: 'ambient', colour: [0.7, 0.8, 1, 1], strength: 0.25 },
];
