<script setup lang="ts">
/** The own password once more, before something is done that somebody at an open screen should not do. */
const { label = 'Your password', reason = '' } = defineProps<{
  label?: string
  does: string
  leaves: string
  grave?: boolean
  busy: boolean
  reason?: string
}>()
const password = defineModel<string>({ required: true })
const emit = defineEmits<{ go: []; leave: [] }>()
</script>

<template>
  <form class="fields" @submit.prevent="emit('go')">
    <input
      v-model="password"
      class="field"
      type="password"
      autocomplete="current-password"
      :aria-label="label"
      placeholder="Your password"
    />
    <v-btn type="submit" size="small" variant="flat" :color="grave ? 'error' : 'primary'" :loading="busy">{{
      does
    }}</v-btn>
    <v-btn size="small" @click="emit('leave')">{{ leaves }}</v-btn>
    <span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
  </form>
</template>
