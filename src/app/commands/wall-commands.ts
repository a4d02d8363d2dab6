import { openAllScreens } from '../actions/open-stage';
import {
  addLedToWall,
  addScreenToWall,
  addStringToWall,
  alignChosen,
  distributeChosen,
  allScreens,
  toggleTests,
} from '../actions/wall-actions';
import type { Side } from '../../core/wall/parts';
import { wallSession } from '../data/wall-session';
import { chosenOutputs } from './at-hand';
import type { Command } from './command';

const hasScreens = (): boolean => allScreens().length > 0;

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
    label: 'Test picture on all screens',
    help: 'Shows the test picture on every screen, or takes it away',
    keys: ['F6'],
    everywhere: true,
    when: hasScreens,
    isOn: () => Object.keys(wallSession.getState().tests).length > 0,
    run: () => toggleTests(allScreens()),
  },
  {
    id: 'wall.test-chosen',
    label: 'Test picture on the chosen screens',
    help: 'Shows the test picture on the chosen screens, or takes it away',
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
