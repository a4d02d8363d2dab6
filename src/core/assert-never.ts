/** Makes the compiler check that every member of a closed union is handled; throws a TypeError if one gets here all the same. */
export function assertNever(value: never): never {
  throw new TypeError(`Not handled: ${JSON.stringify(value)}`);
}
