import { writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'
import vuetify from 'vite-plugin-vuetify'

const build = Date.now().toString(36)
const out = fileURLToPath(new URL('./dist/web', import.meta.url))

export default defineConfig({
  root: fileURLToPath(new URL('./web', import.meta.url)),
  define: { __BUILD__: JSON.stringify(build) },
  plugins: [
    vue(),
    vuetify({ autoImport: true }),
    {
      name: 'kapelle-build-name',
      apply: 'build',
      closeBundle: () => writeFileSync(`${out}/build.txt`, build),
    },
  ],
  build: { outDir: out, emptyOutDir: true, target: 'es2022' },
  server: { port: 4681, proxy: { '/api': process.env.KAPELLE_API ?? 'http://127.0.0.1:4680' } },
})
