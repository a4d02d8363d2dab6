import { beforeEach, describe, expect, test } from '@jest/globals';
import type { ToEngine } from '../../engine/protocol/protocol';
import { DueCommands } from './due-commands';

const step: ToEngine = { type: 'perform', command: { type: 'step' } };
const blackout: ToEngine = { type: 'perform', command: { type: 'blackout' } };
const fault: ToEngine = { type: 'inject-fault', fault: 'crash' };

describe('commands that are due', () => {
  let told: ToEngine[];
  let due: DueCommands;
  beforeEach(() => {
    told = [];
    due = new DueCommands((message) => told.push(message));
  });

  test('wait for an engine, and are told in the order they came', () => {
    due.add(step, false);
    due.add(blackout, false);
    expect(told).toEqual([]);
    due.tellAll();
    due.tellAll();
    expect(told).toEqual([step, blackout]);
  });

  test('are told to the next engine if this one had not done them', () => {
    due.add(step, true);
    due.add(blackout, true);
    due.hear(1);
    due.lose();
    told = [];
    due.tellAll();
    expect(told).toEqual([blackout]);
  });

  test('come before what the performer did since, and are numbered anew', () => {
    due.add(step, true);
    due.lose();
    due.add(blackout, false);
    told = [];
    due.tellAll();
    expect(told).toEqual([step, blackout]);
    due.hear(1);
    due.lose();
    told = [];
    due.tellAll();
    expect(told).toEqual([blackout]);
  });

  test('are told to two engines at most', () => {
    due.add(step, true);
    for (let k = 0; k < 3; k++) {
      due.lose();
      due.tellAll();
    }
    expect(told).toEqual([step, step]);
  });

  test('are commands only: a fault befalls one engine', () => {
    due.add(fault, true);
    due.lose();
    due.tellAll();
    expect(told).toEqual([fault]);
  });

  test('are over with their show', () => {
    due.add(step, true);
    due.add(blackout, false);
    due.forget();
    due.lose();
    due.tellAll();
    expect(told).toEqual([step]);
  });
});
