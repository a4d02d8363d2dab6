const numbers = new WeakMap<object, number>();
let last = 0;

/** A number that stands for an object: what is never changed in place need not be compared piece by piece. */
export function numberOf(value: object): number {
  let number = numbers.get(value);
  if (number === undefined) numbers.set(value, (number = ++last));
  return number;
}
