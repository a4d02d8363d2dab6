import { openAllScreens } from '../actions/open-stage';
import {
  addLedToWall,
  addScreenToWall,
  addStringToWall,
  alignChosen,
  distributeChosen,
  allOutputs,
  toggleTests,
} from '../actions/wall-actions';
import { hasWindow } from '../../core/wall/outputs';
import type { Side } from '../../core/wall/parts';
import { showStore } from '../data/show-store';
import { wallSession } from '../data/wall-session';
import { chosenOutputs } from './at-hand';
import type { Command } from './command';

const hasScreens = (): boolean => showStore.getState().show.wall.outputs.some(hasWindow);

const sides: readonly (readonly [Side, string])[] = [
  ['left', 'left edges'],
  ['centre', 'middles, side by side'],
  ['right', 'right edges'],
  ['top', 'upper edges'],
  ['middle', 'middles, one above the other'],
  ['bottom', 'lower edges'],
];

export const wallCommands: readonly Command[] = [
  {
    id: 'wall.add-screen',
    label: 'Add a screen',
    help: 'Adds a screen that takes the whole canvas',
    run: addScreenToWall,
  },
  {
    id: 'wall.add-led',
    label: 'Add an LED wall',
    help: 'Adds a wall of LED tiles',
    run: addLedToWall,
  },
  {
    id: 'wall.add-string',
    label: 'Add a pixel string',
    help: 'Adds a run of single pixels that is fed over the network',
    run: addStringToWall,
  },
  {
    id: 'wall.open-all',
    label: 'Open all screens',
    help: 'Opens a window for each screen of the wall, on the display that was chosen for it',
    when: hasScreens,
    run: openAllScreens,
  },
  {
    id: 'wall.test-all',
    label: 'Test picture on all outputs',
    help: 'Shows the test picture on every screen, LED wall and string, or takes it away',
    keys: ['F6'],
    everywhere: true,
    when: () => allOutputs().length > 0,
    isOn: () => Object.keys(wallSession.getState().tests).length > 0,
    run: () => toggleTests(allOutputs()),
  },
  {
    id: 'wall.test-chosen',
    label: 'Test picture on the chosen outputs',
    help: 'Shows the test picture on the chosen outputs, or takes it away',
    keys: ['Shift+F6'],
    when: () => chosenOutputs().length > 0,
    run: () => toggleTests(chosenOutputs()),
  },
  ...sides.map(([side, what]): Command => ({
    id: `wall.align-${side}`,
    label: `Align ${what}`,
    help: `Brings the ${what} of the chosen parts in line`,
    when: () => chosenOutputs().length > 1,
    run: () => alignChosen(side),
  })),
  ...(['x', 'y'] as const).map((axis): Command => ({
    id: `wall.distribute-${axis}`,
    label: axis === 'x' ? 'Distribute across' : 'Distribute downwards',
    help: 'Makes the gaps between the chosen parts equal',
    when: () => chosenOutputs().length > 2,
    run: () => distributeChosen(axis),
  })),
];
