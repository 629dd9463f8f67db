/** What the tested parts of the server take from the web server without importing it. */
declare function useRuntimeConfig(): { databaseUrl: string }
