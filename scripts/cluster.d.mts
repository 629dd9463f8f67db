/** A private PostgreSQL cluster; see cluster.mjs. */
export interface Cluster {
  url: string
  start(): void
  stop(): void
  /** Starts it again where it ended without being stopped. */
  keep(): Promise<void>
}
export function startCluster(folder: string): Promise<Cluster>
export function freePort(): Promise<number>
