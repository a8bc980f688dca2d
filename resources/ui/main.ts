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
import { useWaiting } from '@/offline/useWaiting'
import { keepDrafts } from '@/shared/drafts'

const app = createApp(App)
app
  .use(createPinia())
  .use(vuetify)
  .use(router)
  // What the server said is replaced, never changed in place: nothing deep needs to be watched.
  .use(VueQueryPlugin, {
    queryClientConfig: { defaultOptions: { queries: { retry: 1, staleTime: 2_000, shallow: true } } },
  })
// What waits on this device is known before the first build is shown.
void useWaiting()
  .load()
  .finally(() => {
    app.mount('#app')
    keepDrafts()
  })
