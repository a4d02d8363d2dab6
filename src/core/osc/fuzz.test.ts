import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readMidiFile, MidiFileError } from '../midi/file';
import { readMessage } from '../midi/message';
import { OscError, readPacket, writePacket, type OscArgument } from './packet';

const address = fc.stringMatching(/^\/[a-z0-9/_-]{0,30}$/);
const argument = fc.oneof<fc.Arbitrary<OscArgument>[]>(
  fc.float({ noNaN: true, noDefaultInfinity: true }),
  fc.boolean(),
  fc.stringMatching(/^[ -~]{0,20}$/),
);

test('an OSC message comes back as it was sent', () => {
  fc.assert(
    fc.property(address, fc.array(argument, { maxLength: 12 }), (path, args) => {
      const [message] = readPacket(writePacket({ address: path, args }));
      expect(message.address).toBe(path);
      expect(message.args.map((v) => (Object.is(v, -0) ? 0 : v))).toEqual(
        args.map((v) => (Object.is(v, -0) ? 0 : v)),
      );
    }),
    { seed: 2 },
  );
});

test('any bytes, and any packet with bytes changed or cut off, are read or refused in a sentence', () => {
  const damaged = fc
    .tuple(
      address,
      fc.array(argument, { maxLength: 6 }),
      fc.array(fc.tuple(fc.nat(), fc.nat(255)), { maxLength: 4 }),
      fc.nat(80),
    )
    .map(([path, args, changes, cut]) => {
      const bytes = writePacket({ address: path, args });
      for (const [at, value] of changes) bytes[at % bytes.length] = value;
      return bytes.slice(0, Math.max(0, bytes.length - (cut > 40 ? cut - 40 : 0)));
    });
  fc.assert(
    fc.property(fc.oneof(fc.uint8Array({ maxLength: 200 }), damaged), (bytes) => {
      try {
        for (const message of readPacket(bytes)) expect(message.address.startsWith('/')).toBe(true);
      } catch (error) {
        expect(error).toBeInstanceOf(OscError);
        expect((error as OscError).message).toMatch(/\.$/);
      }
    }),
    { seed: 4, numRuns: 1500 },
  );
});

test('any bytes are a MIDI message or none, and a MIDI file or refused', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 120 }), fc.boolean(), (bytes, withHead) => {
      expect(() => readMessage(bytes)).not.toThrow();
      const head = [0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 1, 0, 1, 0, 96, 0x4d, 0x54, 0x72, 0x6b];
      const file = withHead ? new Uint8Array([...head, ...bytes]) : bytes;
      try {
        readMidiFile(file);
      } catch (error) {
        expect(error).toBeInstanceOf(MidiFileError);
      }
    }),
    { seed: 6, numRuns: 1500 },
  );
});
