<script setup lang="ts">
import HelpBubble from './HelpBubble.vue'
import { useNotices } from '@/shared/useNotices'

const notices = useNotices()
</script>

<template>
  <v-app>
    <router-view />
    <HelpBubble />
    <v-snackbar
      v-model="notices.shown"
      :timeout="notices.grave ? 12000 : 4000"
      :color="notices.grave ? 'error' : undefined"
      location="bottom left"
      rounded="sm"
    >
      <span role="status">{{ notices.line }}</span>
      <template #actions><v-btn size="small" @click="notices.shown = false">Close</v-btn></template>
    </v-snackbar>
  </v-app>
</template>
