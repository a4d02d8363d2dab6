import { describe, expect, it } from '@jest/globals';
import { Grip } from './grip';

/** Where it stands once that is said. */
function heard(grip: Grip, said: number): readonly number[] {
  grip.hear([said]);
  return grip.stands([said]);
}

describe('a finger on a control that stands elsewhere', () => {
  const along = (...places: number[]): Grip => {
    const grip = new Grip();
    grip.take([0]);
    for (const place of places) grip.move([place]);
    return grip;
  };

  it('has it where it is, whatever is said', () => {
    const grip = along();
    expect(heard(grip, 0)).toEqual([0]);
    grip.move([0.25]);
    expect(heard(grip, 0)).toEqual([0.25]);
    expect(heard(grip, 0.9)).toEqual([0.25]);
  });

  it('leaves it there until that is said, and does not go its way once more', () => {
    const grip = along(0.25, 0.5, 0.75);
    grip.letGo();
    for (const said of [0, 0.25, 0.5]) expect(heard(grip, said)).toEqual([0.75]);
    expect(heard(grip, 0.75)).toEqual([0.75]);
    // It has come there: what is said from now on is what others do, wherever that is.
    expect(heard(grip, 0.5)).toEqual([0.5]);
  });

  it('gives it to somebody else who moves it', () => {
    const grip = along(0.25, 0.5);
    grip.letGo();
    expect(heard(grip, 0.25)).toEqual([0.5]);
    expect(heard(grip, 0.3)).toEqual([0.3]);
    expect(heard(grip, 0.25)).toEqual([0.25]);
  });

  it('gives it to somebody else who takes it back to where it was', () => {
    const grip = along(0.25, 0.5, 0.75);
    expect(heard(grip, 0.5)).toEqual([0.75]);
    grip.letGo();
    expect(heard(grip, 0.5)).toEqual([0.75]);
    expect(heard(grip, 0.25)).toEqual([0.25]);
  });

  it('has nothing of a way before', () => {
    const grip = along(0.25);
    grip.letGo();
    grip.take([0.25]);
    grip.letGo();
    expect(heard(grip, 0)).toEqual([0]);
  });

  it('holds nothing that was moved without a finger, or is forgotten', () => {
    const grip = new Grip();
    grip.move([0.5]);
    expect(heard(grip, 0)).toEqual([0]);
    const other = along(0.25, 0.5);
    other.letGo();
    other.forget();
    expect(heard(other, 0.25)).toEqual([0.25]);
  });

  it('knows its last places of a long way', () => {
    const grip = along(...Array.from({ length: 2000 }, (_, k) => k));
    grip.letGo();
    expect(heard(grip, 1900)).toEqual([1999]);
    expect(heard(grip, 3)).toEqual([3]);
  });
});
