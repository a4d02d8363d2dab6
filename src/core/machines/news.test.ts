import { expect, it } from '@jest/globals';
import { performanceAt } from '../desk/performance-state';
import { NewsOfState } from './news';

it('tells all at first, then only what has changed, and nothing where nothing has', () => {
  const news = new NewsOfState();
  const state = performanceAt('s1');
  expect(news.of(state)).toEqual(state);
  expect(news.of({ ...state, number: 5, at: 900 })).toBeNull();
  const dark = { ...state, number: 6, at: 950, blackout: true };
  expect(news.of(dark)).toEqual({ blackout: true, number: 6, at: 950 });
  const desk = { ...dark, desk: { ...dark.desk, values: { glow: [0.5] } } };
  expect(news.of(desk)).toEqual({ desk: desk.desk, number: 6, at: 950 });
  news.forget();
  expect(news.of(desk)).toEqual(desk);
});
