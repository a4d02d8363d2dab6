import { linearOf } from '../colour';

/**
 * Flashes that can hurt: pairs of opposing changes of light over a quarter of what is looked at, more than three of them in a second.
 * After ITU-R BT.1702-3 (2023) and WCAG 2.2, success criterion 2.3.1.
 */

/** Grid that a picture is looked at in: cells of a screen, fine enough that a third of it is many of them. */
export const flashGrid = { width: 48, height: 27 } as const;

/** A field of 10 degrees, as a share of the width and height of a screen that is seen from a usual distance. */
const field = 1 / 3;
/** Share of that field that has to flash together. */
const leastArea = 0.25;
/** Change of relative luminance that counts, where the darker of both is below the other number. */
export const general = { change: 0.1, darkerBelow: 0.8 } as const;
/** A red is saturated from this share of all light on; what counts is the change of (R − G − B) × 320. */
export const red = { share: 0.8, change: 20, scale: 320 } as const;
/** Flashes in a second that are allowed; each is a pair of changes. */
export const mostFlashes = 3;
/** Cells that change within so many seconds of each other change together: a flash may be drawn over a few frames. */
const togetherSeconds = 0.05;

type Sort = 'general' | 'red';

/** What a frame adds: how many changes each sort made in the second before it, in the field where most did; above six it fails. */
export interface FlashCount {
  general: number;
  red: number;
  fails: boolean;
}

const cells = flashGrid.width * flashGrid.height;
/** Light of a byte (sRGB). */
export const linear = Float32Array.from({ length: 256 }, (_, byte) => linearOf(byte / 255));

/** Follows one value of each cell from one turning point to the next. */
class Turns {
  /** The last turning point, or the value farthest along since. */
  private readonly far = new Float32Array(cells);
  /** 1 rises, -1 falls, 0: not known yet. */
  private readonly way = new Int8Array(cells);
  /** Lowest so far of cells whose way is not known. */
  private readonly low = new Float32Array(cells);
  /** Second of the last change, by cell and by way. */
  readonly rose = new Float64Array(cells).fill(-Infinity);
  readonly fell = new Float64Array(cells).fill(-Infinity);

  /**
   * `change`: least difference that counts, where the darker of both is below `darkerBelow`. `gate`: only cells that are not 0 there turn, and
   * then stand at `gateAfter`.
   */
  constructor(
    private readonly change: number,
    private readonly darkerBelow: number,
    private readonly gate: Uint8Array,
    private readonly gateAfter: Uint8Array,
  ) {}

  private counts(cell: number, low: number, high: number): boolean {
    return high - low >= this.change && low < this.darkerBelow && this.gate[cell] !== 0;
  }

  begin(cell: number, value: number): void {
    this.far[cell] = this.low[cell] = value;
  }

  add(cell: number, value: number, seconds: number): void {
    const { far, way, low } = this;
    if (way[cell] === 0) {
      const rises = this.counts(cell, low[cell], value);
      if (rises || this.counts(cell, value, far[cell])) this.turn(cell, rises ? 1 : -1, value, seconds);
      else {
        low[cell] = Math.min(low[cell], value);
        far[cell] = Math.max(far[cell], value);
      }
    } else if (way[cell] === 1) {
      if (value >= far[cell]) far[cell] = value;
      else if (this.counts(cell, value, far[cell])) this.turn(cell, -1, value, seconds);
    } else if (value <= far[cell]) far[cell] = value;
    else if (this.counts(cell, far[cell], value)) this.turn(cell, 1, value, seconds);
  }

  private turn(cell: number, way: 1 | -1, value: number, seconds: number): void {
    this.way[cell] = way;
    this.far[cell] = value;
    (way === 1 ? this.rose : this.fell)[cell] = seconds;
    this.gate[cell] = this.gateAfter[cell];
  }
}

/** Cells that changed within the last moments, counted over any box at once: sums from the upper left, by way. */
class Together {
  private readonly up = new Int32Array((flashGrid.width + 1) * (flashGrid.height + 1));
  private readonly down = new Int32Array((flashGrid.width + 1) * (flashGrid.height + 1));

  take({ rose, fell }: Turns, seconds: number): void {
    const { width, height } = flashGrid;
    const { up, down } = this;
    for (let y = 0; y < height; y++) {
      let [rising, falling] = [0, 0];
      for (let x = 0; x < width; x++) {
        const cell = y * width + x;
        // The last change of a cell counts, while it is new.
        const rises = rose[cell] > fell[cell];
        if (seconds - (rises ? rose[cell] : fell[cell]) < togetherSeconds) {
          if (rises) rising++;
          else falling++;
        }
        const at = (y + 1) * (width + 1) + x + 1;
        up[at] = up[at - width - 1] + rising;
        down[at] = down[at - width - 1] + falling;
      }
    }
  }

  /** How many cells of a box rose and fell. */
  within(left: number, top: number, width: number, height: number): readonly [number, number] {
    const row = flashGrid.width + 1;
    const [a, b] = [top * row + left, top * row + left + width];
    const [c, d] = [a + height * row, b + height * row];
    const { up, down } = this;
    return [up[d] - up[b] - up[c] + up[a], down[d] - down[b] - down[c] + down[a]];
  }
}

/** Cells of a field of view along both ways. */
export const fieldWidth = Math.round(flashGrid.width * field);
export const fieldHeight = Math.round(flashGrid.height * field);

/** Changes of one field of view: which way it changed last, and when it did. */
class FieldChanges {
  private way: 1 | -1 | 0 = 0;
  private readonly times: number[] = [];

  constructor(
    private readonly left: number,
    private readonly top: number,
  ) {}

  /** Changes in the second up to now. */
  add(together: Together, seconds: number): number {
    const [up, down] = together.within(this.left, this.top, fieldWidth, fieldHeight);
    const least = leastArea * fieldWidth * fieldHeight;
    if (up >= least) this.turn(1, seconds);
    if (down >= least) this.turn(-1, seconds);
    while (this.times.length && this.times[0] <= seconds - 1 + 1e-9) this.times.shift();
    return this.times.length;
  }

  private turn(way: 1 | -1, seconds: number): void {
    if (this.way === way) return;
    this.way = way;
    this.times.push(seconds);
  }
}

/** Cells between one field of view and the next. */
const step = 4;

function fields(): FieldChanges[] {
  const made: FieldChanges[] = [];
  for (let top = 0; top + fieldHeight <= flashGrid.height; top += step)
    for (let left = 0; left + fieldWidth <= flashGrid.width; left += step)
      made.push(new FieldChanges(left, top));
  return made;
}

/** Counts flashes of a picture, frame by frame. */
export class FlashMeter {
  private readonly reds = new Float32Array(cells);
  private readonly isRed = new Uint8Array(cells);
  /** Cells that were a saturated red since they last turned: of both states of a red flash, one is. */
  private readonly wasRed = new Uint8Array(cells);
  private readonly turns: Record<Sort, Turns>;
  private readonly fields: Record<Sort, FieldChanges[]> = { general: fields(), red: fields() };
  private readonly together = new Together();
  private hasBegun = false;

  constructor() {
    const always = new Uint8Array(cells).fill(1);
    this.turns = {
      general: new Turns(general.change - 1e-6, general.darkerBelow, always, always),
      red: new Turns(red.change + 1e-6, Infinity, this.wasRed, this.isRed),
    };
  }

  /** Takes the next frame at its time in seconds. `rgba`: `flashGrid` of bytes (sRGB), four a cell, row by row. */
  add(rgba: ArrayLike<number>, seconds: number): FlashCount {
    if (rgba.length !== cells * 4)
      throw new TypeError(`A frame of ${flashGrid.width} x ${flashGrid.height} cells is needed.`);
    for (let cell = 0; cell < cells; cell++) {
      const [r, g, b] = [linear[rgba[4 * cell]], linear[rgba[4 * cell + 1]], linear[rgba[4 * cell + 2]]];
      const luminance = 0.2126 * r + 0.7152 * g + 0.0722 * b;
      this.isRed[cell] = Number(r + g + b > 0 && r / (r + g + b) >= red.share);
      this.wasRed[cell] |= this.isRed[cell];
      this.reds[cell] = Math.max(0, (r - g - b) * red.scale);
      if (this.hasBegun) {
        this.turns.general.add(cell, luminance, seconds);
        this.turns.red.add(cell, this.reds[cell], seconds);
      } else {
        this.turns.general.begin(cell, luminance);
        this.turns.red.begin(cell, this.reds[cell]);
      }
    }
    this.hasBegun = true;
    const count = { general: this.most('general', seconds), red: this.most('red', seconds) };
    return { ...count, fails: Math.max(count.general, count.red) > 2 * mostFlashes };
  }

  /** Changes in the last second in the field where most were. */
  private most(sort: Sort, seconds: number): number {
    this.together.take(this.turns[sort], seconds);
    let most = 0;
    for (const one of this.fields[sort]) most = Math.max(most, one.add(this.together, seconds));
    return most;
  }
}
