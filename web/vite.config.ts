import vue from '@vitejs/plugin-vue'
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers'
import Components from 'unplugin-vue-components/vite'
import { defineConfig } from 'vite'

const at = (path: string) => new URL(path, import.meta.url).pathname

export default defineConfig({
  plugins: [vue(), Components({ dirs: [], dts: false, resolvers: [ElementPlusResolver()] })],
  // The fonts are shipped once, where the PDF needs them too.
  resolve: { alias: { '@': at('./src'), '@fonts': at('../src/pancount/formats/templates/fonts') } },
  server: { proxy: { '/api': 'http://127.0.0.1:8137' }, fs: { allow: ['..'] } },
  build: { target: 'es2022', reportCompressedSize: false },
})
