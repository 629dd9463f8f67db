import { desc, isNull } from 'drizzle-orm'
import { rosters } from '../../database/schema'

/** All rosters, last touched first, without their rows. */
export default route(async () =>
  useDatabase().select(LISTED_ROSTER).from(rosters).where(isNull(rosters.deletedAt)).orderBy(desc(rosters.updatedAt)),
)
