import { ownerApi } from './owner'

/** A visitor with a jar for cookies, who never runs script. */
export function visitor(url: string) {
  const jar = new Map<string, string>()
  const cookie = () => [...jar].map(([name, value]) => `${name}=${value}`).join('; ')

  async function ask(path: string, init: RequestInit = {}): Promise<Response> {
    const response = await fetch(url + path, { redirect: 'manual', ...init, headers: { cookie: cookie(), ...(init.headers as object) } })
    for (const set of response.headers.getSetCookie()) {
      const [name, value] = set.split(';')[0]!.split(/=(.*)/s) as [string, string]
      jar.set(name, value)
    }
    return response
  }

  return {
    jar,
    cookie,
    ask,

    /** Fills in the form that stands at an address. */
    async enter(
      path: string,
      fields: Record<string, string>,
      change: (form: URLSearchParams) => void = () => undefined,
    ): Promise<Response> {
      const html = await (await ask(path)).text()
      const action = /<form class="tr-gate" action="([^"]+)"/.exec(html)![1]!
      const form = new URLSearchParams(fields)
      for (const [, name, value] of html.matchAll(/<input type="hidden" name="([^"]+)" value="([^"]*)"/g))
        form.set(name!, value!.replaceAll('&amp;', '&'))
      change(form)
      return ask(action, { method: 'POST', body: form })
    },
  }
}

/** A gate with what is asked, on some files. */
export async function makeGate(
  url: string,
  rule: object,
  { name, password, files = [] }: { name: string; password?: string; files?: string[] },
) {
  const api = await ownerApi(url)
  const gate = await api<{ id: string }>('/gates', { method: 'POST', json: { name, rule, password } })
  for (const id of files) await api(`/files/${id}`, { method: 'PATCH', json: { gate: gate.id } })
  return gate.id
}
