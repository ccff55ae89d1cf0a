declare module '#nitro-internal-virtual/server-handlers' {
  /** What Nitro answers requests by, as it was put together when the server was built. */
  export const handlers: { route?: string; method?: string; middleware?: boolean }[]
}
