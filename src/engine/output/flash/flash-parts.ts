export { FlashLimiter } from './flash-limiter';
export { FlashWatch } from './flash-watch';
