import { WaxError } from '#core/errors'
import type { ExampleFile } from '#core/formats/examples'

/** An example as the file that somebody would have chosen. */
export async function exampleFile({ name }: Pick<ExampleFile, 'name'>): Promise<File> {
  const response = await fetch(`/api/examples/${name}`)
  if (!response.ok)
    throw new WaxError('no-example', name, 'The example could not be fetched.', 'Try again in a moment.')
  return new File([await response.blob()], name)
}
