import type { Cluster } from './cluster.mjs'

export interface Stand {
  address: string
  cluster: Cluster
  workerId(): number | undefined
  stop(): Promise<void>
}
export function startStand(options: { folder: string; port?: string; threads?: number }): Promise<Stand>
