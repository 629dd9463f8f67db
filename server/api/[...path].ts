/** What no other route answers. */
export default route(async () => {
  throw notFound('route')
})
