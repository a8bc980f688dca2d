import '@fontsource-variable/atkinson-hyperlegible-next/wght.css'
import '@fontsource-variable/recursive/mono.css'
import '@/styles/reset.css'
import 'vuetify/styles'
import '@/styles/base.css'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from '@/app/App.vue'
import { router } from '@/app/router'
import { vuetify } from '@/app/vuetify'

createApp(App)
  .use(createPinia())
  .use(vuetify)
  .use(router)
  .use(VueQueryPlugin, { queryClientConfig: { defaultOptions: { queries: { retry: 1, staleTime: 2_000 } } } })
  .mount('#app')
