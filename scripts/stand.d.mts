export interface Stand {
  address: string
  cluster: { url: string; start(): void; stop(): void }
  workerId(): number | undefined
  stop(): Promise<void>
}
export function startStand(options: { folder: string; port?: string; threads?: number }): Promise<Stand>
