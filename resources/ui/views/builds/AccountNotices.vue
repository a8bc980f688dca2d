<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { api, type Session } from '@/api/client'
import { moment } from '@/shared/format'
import { whoIsHere } from '@/shared/session'

/** What happened to the own account since one was here, and workshops that stay shut until there is a second factor. */
const session = ref<Session | null>(null)
onMounted(async () => (session.value = await whoIsHere(true).catch(() => null)))
async function read(): Promise<void> {
  await api.delete('/api/account/notices')
  session.value = await whoIsHere(true)
}
</script>

<template>
  <section v-if="session?.notices.length" class="told" aria-label="About your account">
    <ul>
      <li v-for="one in session.notices" :key="one.id">
        <strong>{{ one.says }}.</strong>
        <span class="quiet small">
          {{ moment(one.at) }}<template v-if="one.address">, from {{ one.address }}</template
          ><template v-if="one.detail">. {{ one.detail }}</template></span
        >
      </li>
    </ul>
    <p class="small">
      If it was not you, change your password under <router-link to="/account" class="link">Account</router-link> and
      look at where you are signed in.
      <button type="button" class="plain link" @click="read()">It was me</button>
    </p>
  </section>
  <p v-for="one in session?.user?.workshops.filter((w) => w.shut)" :key="one.id" class="told">
    <strong>{{ one.name }}</strong> asks for a second factor. Turn yours on under
    <router-link to="/account" class="link">Account</router-link>; its builds are shown after that.
  </p>
</template>

<style scoped>
.told {
  padding: 8px 12px;
  margin: 8px 0;
  background: var(--sheet);
  border-left: 3px solid var(--live);
}
ul {
  padding: 0;
  margin: 0;
  list-style: none;
}
</style>
