import react from '@vitejs/plugin-react'
import tailwindcss from '@tailwindcss/vite'
import { gzipSync } from 'node:zlib'
import { defineConfig } from 'vite'
import type { Plugin } from 'vite'

/** The first view may cost so much script, kB gzipped: what the page loads at once, and the largest view on top. */
const MOST_KB = 220

/** Fails the build when the first view costs more than it may. */
function budget(): Plugin {
  return {
    name: 'budget',
    apply: 'build',
    generateBundle(_options, bundle) {
      const chunks = Object.values(bundle).filter((each) => each.type === 'chunk')
      const byName = new Map(chunks.map((chunk) => [chunk.fileName, chunk]))
      const with_ = (name: string, all = new Set<string>()): Set<string> => {
        if (all.has(name)) return all
        all.add(name)
        for (const next of byName.get(name)?.imports ?? []) with_(next, all)
        return all
      }
      const weight = (names: Iterable<string>) =>
        [...names].reduce((sum, name) => sum + gzipSync(byName.get(name)?.code ?? '').length, 0) / 1024
      const entry = chunks.find((chunk) => chunk.isEntry)
      if (!entry) return this.error('there is no entry')
      const first = with_(entry.fileName)
      // What a view fetches later, as a sheet when it is opened, is no part of the first look.
      const fetched = new Set([...first].flatMap((name) => byName.get(name)?.dynamicImports ?? []))
      const views = chunks
        .filter((chunk) => fetched.has(chunk.fileName))
        .map((chunk) => ({ chunk, all: weight(new Set([...first, ...with_(chunk.fileName)])) }))
        .sort((a, b) => b.all - a.all)
      const most = views[0]
      const told = `first view: ${(most?.all ?? weight(first)).toFixed(1)} kB gzipped of ${MOST_KB}`
      if ((most?.all ?? weight(first)) > MOST_KB)
        this.error(`${told} (${most?.chunk.fileName ?? entry.fileName})`)
      this.info(told)
    },
  }
}

export default defineConfig({
  plugins: [react(), tailwindcss(), budget()],
  server: { proxy: { '/api': { target: 'http://127.0.0.1:4710' } } },
})
