import type { Config } from '@react-router/dev/config'

export default {
  ssr: true,
  // All routes are known from the start: what is asked of a page in the background finds its route wherever one has gone to.
  routeDiscovery: { mode: 'initial' },
  future: {
    v8_middleware: true,
    v8_splitRouteModules: true,
    v8_viteEnvironmentApi: true,
    v8_passThroughRequests: true,
    v8_trailingSlashAwareDataRequests: true,
  },
} satisfies Config
