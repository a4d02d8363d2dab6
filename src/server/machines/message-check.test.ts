import { describe, expect, test } from '@jest/globals';
import { isHandshake, isReport, readCommand } from './message-check';

const report = {
  clock: { offset: -3.2, jitter: 0.1, drift: 0, roundTrip: 4, rounds: 20 },
  asked: 12,
  lost: 0,
  framesPerSecond: 59.8,
  lacks: '',
  where: 'Build, Pollen Drift',
};
const handshake = { version: 1, role: 'remote', machine: 'desk-0123456789', name: 'Desk', token: '' };

describe('what comes over the network', () => {
  test.each([
    ['a report', {}, true],
    [
      'one of a machine that has no clock and draws nothing yet',
      { clock: null, framesPerSecond: null },
      true,
    ],
    ['one that says more, as of a later version', { mood: 'fine' }, true],
    ['a clock that lacks a figure', { clock: { offset: 1, jitter: 0, drift: 0, roundTrip: 2 } }, false],
    ['a clock of infinity', { clock: { ...report.clock, offset: Infinity } }, false],
    ['a count below nothing', { lost: -1 }, false],
    ['a count beyond all reason', { asked: 1e6 }, false],
    ['a number as a text', { framesPerSecond: '60' }, false],
    ['words without end', { lacks: 'a'.repeat(301) }, false],
  ])('%s', (_name, change, isFine) => {
    expect(isReport({ ...report, ...change })).toBe(isFine);
  });

  test.each([
    ['a machine that says who it is', {}, true],
    ['a role that there is not', { role: 'director' }, false],
    ['an id with a path in it', { machine: '../../etc/x' }, false],
    ['an id that is short', { machine: 'desk' }, false],
    ['a name without end', { name: 'a'.repeat(81) }, false],
    ['a token without end', { token: 'a'.repeat(2001) }, false],
    ['no version', { version: undefined }, false],
  ])('%s', (_name, change, isFine) => {
    expect(isHandshake({ ...handshake, ...change })).toBe(isFine);
  });

  test.each([null, undefined, 'report', 7, [], {}])('%j is none of them', (value) => {
    expect([isReport(value), isHandshake(value), readCommand(value)]).toEqual([false, false, null]);
  });

  test('commands are taken to the letter', () => {
    expect(readCommand({ type: 'take-next', seconds: 2 })).toEqual({ type: 'take-next', seconds: 2 });
    expect(readCommand({ type: 'take-next', seconds: 2, more: 1 })).toBeNull();
    expect(readCommand({ type: 'take-next', seconds: -1 })).toBeNull();
    expect(readCommand({ type: 'constructor' })).toBeNull();
    expect(readCommand({ type: 'toString' })).toBeNull();
  });
});
