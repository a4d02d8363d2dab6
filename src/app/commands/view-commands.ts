import { sessionStore } from '../data/session';
import { engine } from '../engine/client';
import { patchLook, toggleLook } from '../data/patch-look';
import { openHelp } from '../data/help-session';
import { goToStep } from '../data/first-steps';
import { variationSession } from '../data/variation-session';
import { navigate } from '../actions/navigation';
import { stepTextSize, textSize } from '../data/text-size';
import { sceneAtHand } from './at-hand';
import { commandList } from './command-list-store';
import type { Command } from './command';

const isBuild = (): boolean => sceneAtHand() !== null;

const views = [
  ['build', 'Build', 'Make patches'],
  ['play', 'Play', 'Perform'],
  ['wall', 'Wall', 'What each screen shows'],
  ['inputs', 'Inputs', 'What drives the show'],
  ['shows', 'Shows', 'Files'],
  ['record', 'Record', 'Export and record'],
  ['preflight', 'Preflight', 'Checks before doors'],
  ['machines', 'Machines', 'Remote desks and other computers'],
] as const;

const looks = [
  [
    'focus',
    'Focus',
    'What the chosen nodes are made of and what is made of them stands out; all else steps back',
    'Alt+U',
    ['upstream', 'downstream', 'isolate', 'dim'],
  ],
  [
    'bundles',
    'Bundle wires',
    'Wires out of one port run together until they part',
    'Alt+Y',
    ['tidy', 'cables', 'spaghetti'],
  ],
  ['map', 'Overview map', 'The whole patch, small, to go elsewhere in it', 'Alt+M', ['minimap', 'navigate']],
] as const;

const guides = [
  ['handles', 'Handles', 'Handles of the chosen node on the monitor, to drag on the picture'],
  ['cross', 'Centre', 'A cross through the middle of the monitor; never on stage'],
  ['safe', 'Safe areas', 'Frames in which action and titles are safe; never on stage'],
] as const;

export const viewCommands: readonly Command[] = [
  {
    id: 'view.commands',
    label: 'All commands and keys',
    help: 'Lists every command, to be read or run',
    words: ['shortcuts', 'hotkeys', 'keyboard', 'menu'],
    keys: ['?', 'Ctrl+K'],
    run: () => commandList.setState(({ open }) => ({ open: !open })),
  },
  {
    id: 'view.help',
    label: 'Help',
    help: 'The guide, every node with a scene that runs, and what is new, to be searched',
    words: ['manual', 'documentation', 'docs', 'how', 'tutorial'],
    keys: ['F1'],
    run: () => openHelp(),
  },
  {
    id: 'view.news',
    label: 'What’s new',
    help: 'What changed in this version',
    words: ['release', 'changelog', 'version', 'update'],
    run: () => openHelp('news'),
  },
  {
    id: 'view.steps',
    label: 'First steps',
    help: 'Six steps from a first card to a picture on stage',
    words: ['tour', 'tutorial', 'introduction', 'guide', 'learn', 'start', 'newcomer', 'onboarding'],
    run: () => goToStep(0),
  },
  ...views.map(([path, label, help], k): Command => ({
    id: `view.${path}`,
    label: `Go to ${label}`,
    help: `${help}: the view ${label}`,
    keys: [`Alt+${k + 1}`],
    run: () => navigate(`/${path}`),
  })),
  {
    id: 'view.bench',
    label: 'Bench',
    help: 'Shows or folds the bench below the patch',
    keys: ['Alt+B'],
    when: isBuild,
    isOn: () => sessionStore.getState().benchOpen,
    run: () => sessionStore.setState(({ benchOpen }) => ({ benchOpen: !benchOpen })),
  },
  {
    id: 'view.variations',
    label: 'Variations',
    help: 'Shows nine variations of the open patch, to be taken, crossed and kept',
    keys: ['Alt+V'],
    when: isBuild,
    isOn: () => variationSession.getState().isOpen,
    run: () => variationSession.setState(({ isOpen }) => ({ isOpen: !isOpen, parents: null })),
  },
  {
    id: 'view.full',
    label: 'Full values',
    help: 'Shows the values of the stage in place of those for work; on stage and in exports they always count',
    keys: ['Alt+Q'],
    when: isBuild,
    isOn: () => !sessionStore.getState().usesDrafts,
    run: () => {
      const on = !sessionStore.getState().usesDrafts;
      sessionStore.setState({ usesDrafts: on });
      engine().set({ type: 'drafts', on });
    },
  },
  ...looks.map(([key, label, help, keys, words]): Command => ({
    id: `view.${key}`,
    label,
    help,
    words,
    keys: [keys],
    when: isBuild,
    isOn: () => patchLook.getState()[key],
    run: () => toggleLook(key),
  })),
  ...guides.map(([key, label, help]): Command => ({
    id: `view.${key}`,
    label,
    help,
    when: isBuild,
    isOn: () => sessionStore.getState().guides[key],
    run: () => sessionStore.setState(({ guides: now }) => ({ guides: { ...now, [key]: !now[key] } })),
  })),
  {
    id: 'view.larger',
    label: 'Larger text',
    help: 'Draws text and controls larger, up to twice their size',
    words: ['zoom', 'font', 'scale', 'bigger', 'accessibility'],
    keys: ['Alt++', 'Alt+='],
    when: () => textSize.getState().percent < 200,
    run: () => stepTextSize(1),
  },
  {
    id: 'view.smaller',
    label: 'Smaller text',
    help: 'Draws text and controls smaller again',
    words: ['zoom', 'font', 'scale'],
    keys: ['Alt+-'],
    when: () => textSize.getState().percent > 100,
    run: () => stepTextSize(-1),
  },
  {
    id: 'view.theme',
    label: 'Light theme',
    help: 'Light colours for daytime, or dark ones for the night',
    isOn: () => sessionStore.getState().theme === 'pyrvel-day',
    run: () =>
      sessionStore.setState(({ theme }) => ({
        theme: theme === 'pyrvel-night' ? 'pyrvel-day' : 'pyrvel-night',
      })),
  },
];
