import { expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { makeShow } from '../show/create';
import { addLedWall, addPixelString, addScreen } from '../show/edit-wall';
import { wallTable } from './wall-table';

test('a wall as a table has a row for each output, with a cell below each head', () => {
  const show = makeShow(catalogue, 'Table');
  for (const add of [addScreen, addLedWall, addPixelString]) add(show);
  show.wall.outputs[0].name = 'Left, "upper"';
  const lines = wallTable(show).split('\r\n');
  expect(lines).toHaveLength(4);
  expect(lines[1]).toMatch(/^"Left, ""upper""",screen,0,0,1920,1080,0,1920,1080,,,/);
  expect(lines[2]).toMatch(/^LED wall,led,.*,12,/);
  expect(lines[3]).toContain(',60,none,,1,1,');
  for (const line of lines.slice(2)) expect(line.split(',')).toHaveLength(lines[0].split(',').length);
});
