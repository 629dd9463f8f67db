import { asc, isNull } from 'drizzle-orm'
import { seals } from '../../database/schema'

/** All seals by name. */
export default route(async () =>
  useDatabase().select(LISTED_SEAL).from(seals).where(isNull(seals.deletedAt)).orderBy(asc(seals.name)),
)
