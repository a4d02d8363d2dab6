import { expect, test } from '@jest/globals';
import { MediaError } from './pictures';
import { VectorRequests } from './vector-requests';

const file = new Blob(['<svg/>']);
const bitmap = (name: string): ImageBitmap => ({ name }) as unknown as ImageBitmap;

test('drawings come back to who asked for them, in any order', async () => {
  const asked: number[] = [];
  const requests = new VectorRequests((id) => asked.push(id));
  const first = requests.draw(file, 100);
  const second = requests.draw(file, 200);
  expect(new Set(asked).size).toBe(2);
  requests.answer(asked[1], bitmap('second'), '');
  requests.answer(asked[0], bitmap('first'), '');
  expect(await first).toEqual(bitmap('first'));
  expect(await second).toEqual(bitmap('second'));
});

test('a drawing that fails says why; an answer nobody waits for changes nothing', async () => {
  const asked: number[] = [];
  const requests = new VectorRequests((id) => asked.push(id));
  const failed = requests.draw(file, 100);
  requests.answer(asked[0] + 7, bitmap('other'), '');
  requests.answer(asked[0], null, 'It has no size.');
  await expect(failed).rejects.toThrow(MediaError);
  await expect(failed).rejects.toThrow('It has no size.');
  expect(() => requests.answer(asked[0], null, 'again')).not.toThrow();
});
