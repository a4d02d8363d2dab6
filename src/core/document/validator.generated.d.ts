// Written by scripts/generate.ts. Do not edit.
declare function validate(data: unknown): boolean;
export default validate;
