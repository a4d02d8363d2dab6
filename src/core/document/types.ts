export * from './types.generated';
export { showFormat, showVersion } from './schema';
