import type { ImageRef } from './image-ref';
import type { Shape } from './shape/shape';
import type { Rgba, Spread } from './show/types';

export type Vec3 = readonly [number, number, number];

/** How a body looks. Lengths in scene units (one is about the height of the view) unless named px. */
export interface Look {
  draw: 'surface' | 'lines' | 'points';
  /** Which lines of the shape are drawn. */
  lines: 'both' | 'rows' | 'columns';
  shading: 'lit' | 'flat' | 'glow';
  /** Blending: over what is behind, added to it, or multiplied with it. */
  blending: 'over' | 'add' | 'multiply';
  colour: Rgba;
  picture: ImageRef | null;
  /** Width of lines in pixels of the show's canvas; `leastWidthPx` holds it up far away. */
  widthPx: number;
  leastWidthPx: number;
  /** Lines keep their pixels at any distance, or shrink with it. */
  widthShrinks: boolean;
  pointSize: number;
  /** Distance from the camera where the tint begins and where it is full. */
  fog: { near: number; far: number; colour: Rgba; amount: number };
  /** Hides what lies behind it. */
  solid: boolean;
}

export interface BodyProp {
  type: 'body';
  /** Node whose fault it is when it cannot be drawn. */
  node: string;
  shape: Shape;
  look: Look;
}

export interface InstancesProp {
  type: 'instances';
  node: string;
  body: BodyProp;
  count: number;
  /** Per-copy numbers, each `count` long or one for all. A changed array is a new one, so identity says what to send. */
  place: readonly Float32Array[];
  /** Radians about x, y and z, in that order. */
  turn: readonly Float32Array[];
  size: readonly Float32Array[];
  scale: Float32Array;
  tint: readonly Float32Array[];
  /** Points of a shape the copies stand on. */
  on: Shape | null;
  /** Turned so that +z looks along the normal of its point, at the camera, or as it is. */
  facing: 'none' | 'camera' | 'normal';
  pixels: PixelSource | null;
  /** How points serve more or fewer copies. */
  spread: Spread;
}

/** Copies placed by the pixels of an image, read on the card. */
export interface PixelSource {
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
  shape: 'sun' | 'point' | 'ambient';
  colour: Rgba;
  strength: number;
  /** Where it stands; a sun shines from there to the middle. */
  place: Vec3;
  /** Distance at which a point light has half its strength. */
  reach: number;
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
}

export type Prop = BodyProp | InstancesProp | LightProp | CameraProp;

export interface ShotSettings {
  background: Rgba;
  /** Samples a pixel at edges: 0 is off. */
  samples: 0 | 4;
  /** Brings added light into range. */
  tone: 'none' | 'soft';
  exposure: number;
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
};

/** The lights a shot uses when none is wired. */
export const defaultLights: readonly LightProp[] = [
  { type: 'light', shape: 'sun', colour: [1, 0.96, 0.9, 1], strength: 1, place: [0.6, 1, 0.8], reach: 1 },
  { type: 'light', shape: 'ambient', colour: [0.7, 0.8, 1, 1], strength: 0.25, place: [0, 0, 0], reach: 1 },
];
