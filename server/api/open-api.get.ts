import { openApiDocument } from '../open-api/document'

let made: Promise<object> | null = null

/** What other programs can ask of this server: an OpenAPI 3.1 document. */
export default route(async () => (made ??= openApiDocument()))
