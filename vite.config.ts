import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { gzipSync } from 'node:zlib'
import vue from '@vitejs/plugin-vue'
import { type Plugin } from 'vite'
import { defineConfig } from 'vitest/config'
import { VitePWA } from 'vite-plugin-pwa'
import vuetify from 'vite-plugin-vuetify'

const assets = fileURLToPath(new URL('./public/build/assets', import.meta.url))

/** Leaves a compressed copy beside each text asset, which the router serves as it is. */
function compressed(): Plugin {
  return {
    name: 'compressed',
    apply: 'build',
    closeBundle() {
      if (!existsSync(assets)) return
      for (const file of readdirSync(assets)) {
        if (/\.(js|css|svg)$/.test(file)) {
          writeFileSync(`${assets}/${file}.gz`, gzipSync(readFileSync(`${assets}/${file}`), { level: 9 }))
        }
      }
    },
  }
}

export default defineConfig({
  base: '/build/',
  publicDir: false,
  plugins: [
    // A line break between two elements is a space, as the formatter takes it to be.
    vue({ template: { transformAssetUrls: false, compilerOptions: { whitespace: 'preserve' } } }),
    vuetify({ autoImport: true }),
    // What keeps the bench readable without a network. It is served from the top, and so are the names it keeps.
    VitePWA({
      strategies: 'injectManifest',
      srcDir: 'resources/ui/offline',
      filename: 'worker.ts',
      injectRegister: false,
      manifest: false,
      injectManifest: {
        globPatterns: ['assets/*.{js,css,woff2}'],
        // Drawing in space is asked for by who looks at it, not laid by for the bench.
        globIgnores: ['assets/SpaceView-*'],
        modifyURLPrefix: { '': '/build/' },
        maximumFileSizeToCacheInBytes: 4_000_000,
      },
    }),
    compressed(),
  ],
  resolve: { alias: { '@': fileURLToPath(new URL('./resources/ui', import.meta.url)) } },
  test: { include: ['resources/ui/**/*.test.ts'] },
  build: {
    outDir: 'public/build',
    emptyOutDir: true,
    manifest: 'manifest.json',
    // Nothing is written into the page itself: its content policy lets only files of our own in.
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 900,
    rollupOptions: { input: 'resources/ui/main.ts' },
  },
})
