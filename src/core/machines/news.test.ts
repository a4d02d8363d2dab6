import { describe, expect, it } from '@jest/globals';
import { performanceAt } from '../desk/performance-state';
import { HeardState, NewsOfState } from './news';

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

describe('a performance that is told of', () => {
  let ahead = 500;
  const heard = new HeardState({ toOwn: (server) => server - ahead });
  const state = { ...performanceAt('s1'), number: 3, at: 9000 };

  it('is not known before anything was told, nor after another machine took over', () => {
    expect(heard.here).toBeNull();
    heard.take(state, true);
    heard.forget();
    expect(heard.here).toBeNull();
  });

  it('stands by the clock of this machine, however much of it is learned later', () => {
    heard.take(state, true);
    expect(heard.here).toEqual({ ...state, at: 8500 });
    ahead = 700;
    expect(heard.here!.at).toBe(8300);
  });

  it('keeps what no news are of, and starts anew with what is whole', () => {
    heard.take({ number: 4, at: 9500, blackout: true }, false);
    expect(heard.here).toMatchObject({ number: 4, blackout: true, program: { program: 's1' } });
    heard.take({ number: 5, at: 9600, freeze: true }, true);
    expect(heard.here).toMatchObject({ blackout: false, freeze: true, program: { program: '' } });
  });
});
