// Names the scripts and styles of Fish in the page itself, so that they are on their way while the
// shell is still read: the browser would learn of them only when the shell asks for the place.
import type { Plugin, Rollup } from 'vite'

const FIRST = '/fish/pages/FishPage.vue'

export function firstView(): Plugin {
  return {
    name: 'first-view',
    transformIndexHtml: {
      order: 'post',
      handler(html, { bundle }) {
        // While the front end is being worked on nothing is bundled.
        if (!bundle) return []
        const chunks = Object.values(bundle).filter((file): file is Rollup.OutputChunk => file.type === 'chunk')
        const page = chunks.find((chunk) => chunk.facadeModuleId?.endsWith(FIRST))
        if (!page) throw new Error(`no chunk for ${FIRST}`)
        const styles = new Set<string>()
        const scripts = new Set<string>()
        const take = (chunk: Rollup.OutputChunk | undefined): void => {
          if (!chunk || scripts.has(chunk.fileName)) return
          scripts.add(chunk.fileName)
          for (const style of chunk.viteMetadata?.importedCss ?? []) styles.add(style)
          for (const name of chunk.imports) take(chunks.find((other) => other.fileName === name))
        }
        take(page)
        const known = (name: string): boolean => html.includes(name)
        return [
          ...[...scripts]
            .filter((name) => !known(name))
            .map((name) => ({
              tag: 'link',
              attrs: { rel: 'modulepreload', crossorigin: true, href: `/${name}` },
              injectTo: 'head' as const,
            })),
          ...[...styles]
            .filter((name) => !known(name))
            .map((name) => ({
              tag: 'link',
              attrs: { rel: 'preload', as: 'style', crossorigin: true, href: `/${name}` },
              injectTo: 'head' as const,
            })),
        ]
      },
    },
  }
}
