import { describe, expect, it } from '@jest/globals';
import { Options } from './arguments';
import { playerAddress, playerFlags, portOf, startPlayer } from './player';

const address = (options: Record<string, string>): string => playerAddress(Options.of(options)).href;

describe('pyrvel player', () => {
  it('opens the page of a player on the main machine, by its name and with its code', () => {
    expect(address({ host: '10.0.0.2:4171' })).toBe('https://10.0.0.2:4171/player?name=Player');
    expect(address({ host: 'http://localhost:4170', name: 'Gable left', code: '012 345' })).toBe(
      'http://localhost:4170/player?name=Gable+left#code=012345',
    );
  });

  it('says what is missing or wrong', async () => {
    expect(() => address({})).toThrow(/--host is missing/);
    expect(() => address({ host: 'https://' })).toThrow(/is no address/);
    expect(() => address({ host: '10.0.0.2', code: '12' })).toThrow(/six digits/);
    await expect(startPlayer(Options.of({ host: '127.0.0.1:9' }), () => undefined)).rejects.toThrow(
      /does not answer at 127.0.0.1:9/,
    );
  });

  it('keeps a browser and a port of its own for each name', () => {
    const flags = playerFlags(new URL('http://localhost:4200/player?name=Gable%20left'), '/data');
    expect(flags).toContain('--user-data-dir=/data/player-Gable-left');
    expect(flags.at(-1)).toBe('--app=http://localhost:4200/player?name=Gable%20left');
    expect(portOf('Gable left')).toBe(portOf('Gable left'));
    expect(new Set(['Left', 'Right', 'Gable left', 'Gable right'].map(portOf)).size).toBe(4);
  });
});
