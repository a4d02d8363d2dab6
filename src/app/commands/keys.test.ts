import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { matches, parseKeys } from './keys';

const press = (
  key: string,
  held: Partial<Record<'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey', boolean>> = {},
) => ({ key, ctrlKey: false, metaKey: false, shiftKey: false, altKey: false, ...held }) as KeyboardEvent;

describe('keys of commands', () => {
  test('are read with their modifiers', () => {
    expect(parseKeys('Ctrl+Shift+Z')).toEqual({ ctrl: true, shift: true, alt: false, key: 'z' });
    expect(parseKeys('F9')).toEqual({ ctrl: false, shift: false, alt: false, key: 'F9' });
    expect(parseKeys('/')).toEqual({ ctrl: false, shift: false, alt: false, key: '/' });
    expect(parseKeys('Ctrl++').key).toBe('+');
  });

  test('with an unknown modifier or none are refused', () => {
    expect(() => parseKeys('Hyper+K')).toThrow(/modifier/);
    expect(() => parseKeys('')).toThrow(/names no key/);
  });

  test('match only with the same modifiers; the Command key counts as Ctrl', () => {
    const undo = parseKeys('Ctrl+Z');
    expect(matches(press('z', { ctrlKey: true }), undo)).toBe(true);
    expect(matches(press('Z', { ctrlKey: true }), undo)).toBe(true);
    expect(matches(press('z', { metaKey: true }), undo)).toBe(true);
    expect(matches(press('z', { ctrlKey: true, shiftKey: true }), undo)).toBe(false);
    expect(matches(press('z', { ctrlKey: true, altKey: true }), undo)).toBe(false);
    expect(matches(press('z'), undo)).toBe(false);
  });

  test('of symbols match whether or not the keyboard needs Shift for them', () => {
    expect(matches(press('/', { shiftKey: true }), parseKeys('/'))).toBe(true);
    expect(matches(press('?', { shiftKey: true }), parseKeys('?'))).toBe(true);
  });

  test('are what was pressed, whatever it was', () => {
    const key = fc.constantFrom('a', 'z', '0', 'F1', 'F12', 'Enter', 'Delete', 'Escape', ',', '.');
    fc.assert(
      fc.property(key, fc.boolean(), fc.boolean(), fc.boolean(), (name, ctrl, shift, alt) => {
        const text = `${ctrl ? 'Ctrl+' : ''}${shift ? 'Shift+' : ''}${alt ? 'Alt+' : ''}${name.toUpperCase().length === 1 ? name.toUpperCase() : name}`;
        const event = press(name, { ctrlKey: ctrl, shiftKey: shift, altKey: alt });
        expect(matches(event, parseKeys(text))).toBe(true);
        expect(matches({ ...event, ctrlKey: !ctrl } as KeyboardEvent, parseKeys(text))).toBe(false);
      }),
    );
  });
});
