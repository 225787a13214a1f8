import { VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import '@/design/tokens.css'
import '@/design/base.css'
import '@/design/element.css'

createApp(App)
  .use(router)
  .use(VueQueryPlugin, { queryClientConfig: { defaultOptions: { queries: { retry: 1, retryDelay: 800 } } } })
  .mount('#app')
