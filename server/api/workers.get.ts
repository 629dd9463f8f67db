import { livingWorkers } from '../renders/queue/workers'

/** Workers that have been heard of lately. */
export default route(async () => livingWorkers(useDatabase()))
