import { expect, test } from '@jest/globals';
import { Silence } from './silence';

/** An engine that says something every so many milliseconds, for so long. */
const talking = (every: number, ms: number, silence = new Silence(), from = 1000): [Silence, number] => {
  silence.begin(from);
  let now = from;
  while (now < from + ms) silence.hear((now += every));
  return [silence, now];
};

test('an engine that talks all the time hangs after a few seconds of silence', () => {
  const [silence, now] = talking(40, 8000);
  expect(silence.isTooLong(now + 2400)).toBe(false);
  expect(silence.isTooLong(now + 2600)).toBe(true);
});

test('one that is often busy for a second is given longer', () => {
  const [silence, now] = talking(1000, 20000);
  expect(silence.isTooLong(now + 3900)).toBe(false);
  expect(silence.isTooLong(now + 4100)).toBe(true);
});

test('one that has just begun, or that stands in for another, is given all the time there is', () => {
  const [silence, now] = talking(40, 2000);
  expect(silence.isTooLong(now + 19000)).toBe(false);
  expect(silence.isTooLong(now + 20100)).toBe(true);
  const [, later] = talking(40, 20000, silence, now);
  expect(silence.isTooLong(later + 5000)).toBe(false);
  const [, muchLater] = talking(40, 70000, silence, later);
  expect(silence.isTooLong(muchLater + 2600)).toBe(true);
});

test('a long pause is forgotten after a while', () => {
  const [silence, now] = talking(1500, 6000);
  let at = now;
  while (at < now + 70000) silence.hear((at += 40));
  expect(silence.isTooLong(at + 2600)).toBe(true);
});

test('one that draws something for the first time is given all the time there is', () => {
  const [silence, now] = talking(40, 8000);
  silence.setMaking(true);
  expect(silence.isTooLong(now + 19000)).toBe(false);
  expect(silence.isTooLong(now + 20100)).toBe(true);
  silence.setMaking(false);
  expect(silence.isTooLong(now + 2600)).toBe(true);
});
