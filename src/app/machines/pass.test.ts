import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { installFakeBrowser } from '../testing/fake-browser';

installFakeBrowser();
const { forgetPass, keptPass, letIn, pageAt, takeBrought } = await import('./pass');

/** A pass as the server signs it: what stands in it can be read. */
const tokenOf = (role: string): string =>
  `head.${Buffer.from(JSON.stringify({ role })).toString('base64url')}.sign`;

/** Goes to a page of this browser. */
let cleaned: string[];
const goTo = (address: string): void => {
  const { pathname, search, hash } = new URL(address);
  Object.assign(globalThis, {
    location: { pathname, search, hash },
    history: { replaceState: (_: unknown, __: string, to: string) => cleaned.push(to) },
  });
};

const answers = (status: number, body: unknown): void =>
  void Object.assign(globalThis, {
    fetch: jest.fn(() =>
      Promise.resolve(new Response(typeof body === 'string' ? body : JSON.stringify(body), { status })),
    ),
  });

beforeEach(() => {
  localStorage.clear();
  cleaned = [];
  goTo('http://localhost/player?name=Left');
});

describe('a code', () => {
  test('of the right kind lets a machine in, which keeps its pass', async () => {
    answers(200, { token: tokenOf('player'), role: 'player' });
    await letIn('123456', 'player');
    expect(keptPass('player')).toEqual({ token: tokenOf('player'), role: 'player' });
    // Each player of a browser has its own.
    goTo('http://localhost/player?name=Right');
    expect(keptPass('player')).toBeNull();
  });

  test.each([
    [401, 'This code is not valid.', 'player', /not valid/],
    [200, { token: tokenOf('desk'), role: 'desk' }, 'player', /the one for players/],
    [200, { token: tokenOf('player'), role: 'player' }, 'remote', /those for remote desks/],
  ] as const)('that is wrong says why (%s, %j)', async (status, body, as, words) => {
    answers(status, body);
    await expect(letIn('123456', as)).rejects.toThrow(words);
    expect(keptPass(as)).toBeNull();
  });

  test('is not heard where nobody answers', async () => {
    Object.assign(globalThis, { fetch: () => Promise.reject(new Error('away')) });
    await expect(letIn('123456', 'remote')).rejects.toThrow(/does not answer/);
  });
});

test('a pass that is damaged, or of a role that nobody knows, is none', () => {
  for (const token of ['nonsense', 'a.b.c', tokenOf('king')]) {
    localStorage.setItem('pyrvel.passremote', token);
    expect(keptPass('remote')).toBeNull();
  }
  localStorage.setItem('pyrvel.passremote', tokenOf('look'));
  expect(keptPass('remote')?.role).toBe('look');
  forgetPass('remote');
  expect(keptPass('remote')).toBeNull();
});

describe('the way to the spare', () => {
  test('brings the machine and its pass, which the page there takes and shows no longer', async () => {
    answers(200, { token: tokenOf('player'), role: 'player' });
    await letIn('123456', 'player');
    const address = pageAt('https://10.0.0.2:4171', 'player');
    expect(address).toMatch(/^https:\/\/10\.0\.0\.2:4171\/player\?name=Left#machine=[0-9a-f]+&pass=head\./);
    localStorage.clear();
    goTo(address);
    takeBrought('player');
    expect(keptPass('player')).toEqual({ token: tokenOf('player'), role: 'player' });
    expect(cleaned).toEqual(['/player?name=Left']);
    expect(pageAt('https://10.0.0.2:4171', 'player')).toBe(address);
  });

  test.each([
    '',
    '#pass=head.body.sign',
    '#machine=abc%20d&pass=head.body.sign',
    '#machine=0123456789abcdef01234567&pass=<b>',
  ])('takes nothing from “%s”', (hash) => {
    goTo(`https://10.0.0.2:4171/player?name=Left${hash}`);
    takeBrought('player');
    expect(localStorage.getItem('pyrvel.passplayer.Left')).toBeNull();
  });
});
