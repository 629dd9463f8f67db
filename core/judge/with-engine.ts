import type { Engine } from '../frame/engine'

/** Lets an engine work, with all that it asks for. */
export type WithEngine = <T>(work: (engine: Engine) => T) => Promise<T>
