import type { PreflightMeans } from '../../core/preflight/run';
import type { EngineAnswer, EngineRequest } from './protocol';

/** What Preflight asks of an engine. */
export type PreflightRequest = Extract<EngineRequest, { type: 'measure' | 'cost' }>;
type Answer<T extends PreflightRequest['type']> = Extract<EngineAnswer, { type: T }>;

/** Preflight's means, by whoever hands its requests to an engine. `withCost`: frames are also timed. */
export const meansOf = (
  ask: (request: PreflightRequest) => Promise<EngineAnswer>,
  withCost: boolean,
): PreflightMeans => ({
  measure: async (subject, longest, isNew) =>
    (await ask({ type: 'measure', subject, longest, isNew })) as Answer<'measure'>,
  ...(withCost && {
    cost: async (subject, frames) => ((await ask({ type: 'cost', subject, frames })) as Answer<'cost'>).cost,
  }),
});
