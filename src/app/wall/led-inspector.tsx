import { Download, Plus, RotateCw, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { addTile, hangOutlines, layOutTiles, removeTile } from '../../core/show/edit-wall';
import { rasterDrawing, rasterFaults, rasterFor, wallBox } from '../../core/wall/led';
import type { LedWall } from '../../core/document/types';
import { editLed } from '../actions/wall-actions';
import { moveOutput, partOf } from '../../core/wall/outputs';
import { RoomSection } from './room-inspector';
import { wallSession } from '../data/wall-session';
import { SelectField } from '../parts/field';
import { say } from '../parts/notices';
import { saveAs } from '../parts/save-as';
import { FileButton } from '../parts/file-button';
import { type Form, Numbers, pixels } from './inspector-parts';
import { Row, Section, Toggle } from '../parts/rows';
import { ColourSection, DisplayRow, NameRow } from './output-rows';
import { PlayerRow } from './player-row';

const count: Form = { step: 0.05, min: 1, max: 4096, digits: 0 };
const rasterPixels: Form = { step: 1, min: 1, max: 16384, digits: 0, unit: ' px' };
const turns = [
  ['0', 'Upright'],
  ['1', '90°'],
  ['2', '180°'],
  ['3', '270°'],
] as const;
const whole = Math.round;

/** Draws an SVG as a PNG of its own size. */
async function asPng(svg: string): Promise<Blob | null> {
  const image = new Image();
  const url = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
  try {
    image.src = url;
    await image.decode();
    const canvas = document.createElement('canvas');
    canvas.width = image.naturalWidth;
    canvas.height = image.naturalHeight;
    canvas.getContext('2d')!.drawImage(image, 0, 0);
    return await new Promise((resolve) => canvas.toBlob(resolve, 'image/png'));
  } finally {
    URL.revokeObjectURL(url);
  }
}

function LayoutRows({ led }: { led: LedWall }) {
  const [grid, setGrid] = useState({ columns: 4, rows: 3, gap: 0, turn: 0 });
  const numbers = [
    ['columns', 'Columns', count],
    ['rows', 'Rows', count],
    ['gap', 'Gap', { ...count, min: 0, unit: ' px' }],
  ] as const;
  return (
    <>
      {numbers.map(([key, label, form]) => (
        <Numbers<typeof grid>
          key={key}
          edit={(change) => {
            const next = { ...grid };
            change(next);
            setGrid(next);
          }}
          label={label}
          names={null}
          form={form}
          values={[grid[key]]}
          set={(one, _, v) => (one[key] = whole(v))}
        />
      ))}
      <Row label="Hung">
        <SelectField
          label="Turn of new tiles"
          className="min-w-0 flex-1"
          value={String(grid.turn)}
          options={turns}
          onChange={(v) => setGrid({ ...grid, turn: Number(v) })}
        />
        <button
          type="button"
          className="tool"
          title="Replaces all tiles by rows and columns"
          onClick={() => {
            editLed(led.id, (one) => layOutTiles(one, grid));
            wallSession.setState({ tab: 'output', ledPlan: 'tiles', tile: null });
          }}
        >
          Lay out
        </button>
      </Row>
    </>
  );
}

function TileRows({ led }: { led: LedWall }) {
  const tile = wallSession((s) => s.tile);
  const edit = (change: (one: LedWall) => void, gesture: string | null = null): void =>
    editLed(led.id, change, gesture);
  return (
    <>
      {tile !== null && led.tiles[tile] && (
        <Numbers<LedWall>
          edit={edit}
          label="Chosen tile"
          names={['x', 'y']}
          form={pixels}
          values={[led.tiles[tile].x, led.tiles[tile].y]}
          set={(one, k, v) => (one.tiles[tile][k ? 'y' : 'x'] = v)}
        />
      )}
      <div className="flex h-7 items-center gap-1">
        <button
          type="button"
          className="tool"
          onClick={() =>
            edit((one) => wallSession.setState({ tile: addTile(one), tab: 'output', ledPlan: 'tiles' }))
          }
        >
          <Plus size={13} /> Tile
        </button>
        <button
          type="button"
          className="tool"
          disabled={tile === null}
          onClick={() => edit((one) => (one.tiles[tile!].turn = (one.tiles[tile!].turn + 1) % 4))}
        >
          <RotateCw size={13} /> Turn
        </button>
        <button
          type="button"
          className="tool"
          aria-label="Remove the chosen tile"
          disabled={tile === null}
          onClick={() => {
            edit((one) => removeTile(one, tile!));
            wallSession.setState({ tile: null });
          }}
        >
          <Trash2 size={13} /> Remove
        </button>
      </div>
    </>
  );
}

function RasterSection({ led }: { led: LedWall }) {
  const { raster } = led;
  const { outside, overlaps } = rasterFaults(led);
  const edit = (change: (one: LedWall) => void, gesture: string | null = null): void =>
    editLed(led.id, change, gesture);
  return (
    <Section title="Raster of the processor">
      <Numbers<LedWall>
        edit={edit}
        label="Size"
        names={['width', 'height']}
        form={rasterPixels}
        values={[raster.width, raster.height]}
        set={(one, k, v) => (one.raster[k ? 'height' : 'width'] = whole(v))}
      />
      <Row label="Wired">
        <SelectField
          label="Wired along"
          className="min-w-0 flex-[1.2] px-0.5!"
          value={raster.along}
          options={[
            ['rows', 'Rows'],
            ['columns', 'Columns'],
          ]}
          onChange={(v) => edit((one) => (one.raster.along = v as typeof raster.along))}
        />
        <SelectField
          label="Wired from"
          className="min-w-0 flex-1"
          value={raster.from}
          options={[
            ['topLeft', 'Top left'],
            ['topRight', 'Top right'],
            ['lowerLeft', 'Lower left'],
            ['lowerRight', 'Lower right'],
          ]}
          onChange={(v) => edit((one) => (one.raster.from = v as typeof raster.from))}
        />
      </Row>
      <div className="flex h-7 items-center gap-2">
        <span className="w-24 shrink-0" />
        <Toggle
          label="Serpentine"
          on={raster.serpentine}
          set={(on) => edit((one) => (one.raster.serpentine = on))}
        />
        <button
          type="button"
          className="tool"
          title="Makes the raster as large as the tiles need"
          onClick={() =>
            edit((one) => {
              one.raster.places = null;
              Object.assign(one.raster, rasterFor(one));
            })
          }
        >
          Fit
        </button>
      </div>
      {raster.places && (
        <div className="flex h-7 items-center gap-2">
          <span className="grow">Tiles are placed by hand.</span>
          <button type="button" className="tool" onClick={() => edit((one) => (one.raster.places = null))}>
            Pack by rule
          </button>
        </div>
      )}
      {(outside.length > 0 || overlaps.length > 0) && (
        <p className="mt-1 text-error" role="alert" data-testid="raster-faults">
          {outside.length > 0 && `${outside.length} tiles stand beyond the raster and stay dark. `}
          {overlaps.length > 0 && `${overlaps.length} pairs of tiles share pixels.`}
        </p>
      )}
    </Section>
  );
}

/** Everything about one LED wall, in numbers. */
export function LedInspector({ output: led }: { output: LedWall }) {
  const edit = (change: (one: LedWall) => void, gesture: string): void => editLed(led.id, change, gesture);
  const part = partOf(led);
  const [, , width, height] = wallBox(led);
  const mm = (px: number): string => `${whole(px * led.pitch)}`;
  const file = led.name.replace(/[^\p{L}\p{N}_-]+/gu, '-');
  return (
    <div className="flex flex-col gap-0.5 px-3 pt-2 pb-4" data-testid="led-inspector">
      <NameRow output={led} />
      <p className="figures quiet text-2xs" data-testid="led-size">
        {led.tiles.length} tiles · {width} x {height} px · {mm(width)} x {mm(height)} mm
      </p>
      <DisplayRow output={led} />
      <PlayerRow output={led} />
      <Section title="Part of the canvas">
        <Numbers<LedWall>
          edit={edit}
          label="Place"
          names={['x', 'y']}
          form={pixels}
          values={[part.x, part.y]}
          set={(one, k, v) => moveOutput(one, k ? 'y' : 'x', v)}
        />
        <Numbers<LedWall>
          edit={edit}
          label="Per LED pixel"
          names={null}
          form={{ step: 0.01, min: 0.05, max: 100, digits: 3, unit: ' px' }}
          values={[led.pixelSize]}
          set={(one, _, v) => (one.pixelSize = v)}
        />
      </Section>
      <Section title="Tiles">
        <Numbers<LedWall>
          edit={edit}
          label="Pixels"
          names={['width', 'height']}
          form={{ ...count, step: 1 }}
          values={led.tile}
          set={(one, k, v) => (one.tile[k] = whole(v))}
        />
        <Numbers<LedWall>
          edit={edit}
          label="Pitch"
          names={null}
          form={{ step: 0.01, min: 0.1, max: 1000, digits: 2, unit: ' mm' }}
          values={[led.pitch]}
          set={(one, _, v) => (one.pitch = v)}
        />
        <TileRows led={led} />
      </Section>
      <Section title="Rows and columns">
        <LayoutRows led={led} />
        <FileButton
          label="From SVG …"
          title="Hangs a tile for each closed outline of a drawing, as wide in all as the wall is now"
          accept=".svg"
          testId="outlines-file"
          read={async (chosen) => {
            const { readOutlines } = await import('../../core/wall/outlines');
            const outlines = readOutlines(await chosen.text()).filter(
              ({ closed, points }) => closed && points.length >= 3 && points.length <= 64,
            );
            if (!outlines.length) throw new Error('It has no closed outlines of 3 to 64 corners.');
            edit((one) => hangOutlines(one, outlines, width), 'outlines');
            wallSession.setState({ tab: 'output', ledPlan: 'tiles', tile: null });
            say({ tone: 'info', text: `${outlines.length} tiles hang as in ${chosen.name}.` });
          }}
        />
      </Section>
      <RasterSection led={led} />
      <Section title="Drawing for the crew">
        <div className="flex gap-1">
          <button
            type="button"
            className="tool"
            onClick={() => saveAs(new Blob([rasterDrawing(led)], { type: 'image/svg+xml' }), `${file}.svg`)}
          >
            <Download size={13} /> SVG
          </button>
          <button
            type="button"
            className="tool"
            onClick={() => void asPng(rasterDrawing(led)).then((png) => png && saveAs(png, `${file}.png`))}
          >
            <Download size={13} /> PNG
          </button>
        </div>
      </Section>
      <ColourSection output={led} />
      <RoomSection output={led} />
    </div>
  );
}
