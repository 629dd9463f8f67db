import sharp from 'sharp'

// sharp keeps what it opened under its path, and would take a file that was written anew for the one before.
sharp.cache(false)

/** For pictures that are read by their path. */
export default sharp
