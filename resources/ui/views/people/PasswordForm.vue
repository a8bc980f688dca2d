<script setup lang="ts">
/** The own password once more, before something is done that somebody at an open screen should not do. */
const {
  label = 'Your password',
  reason = '',
  codeReason = '',
} = defineProps<{
  label?: string
  does: string
  leaves: string
  grave?: boolean
  busy: boolean
  reason?: string
  /** The second factor is on: its code is asked for beside. */
  coded?: boolean
  codeReason?: string
}>()
const password = defineModel<string>({ required: true })
const code = defineModel<string>('code', { default: '' })
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
    <input
      v-if="coded"
      v-model="code"
      class="field"
      autocomplete="one-time-code"
      aria-label="Code of your authenticator, or one on paper"
      placeholder="Code"
    />
    <v-btn type="submit" size="small" variant="flat" :color="grave ? 'error' : 'primary'" :loading="busy">{{
      does
    }}</v-btn>
    <v-btn size="small" @click="emit('leave')">{{ leaves }}</v-btn>
    <span v-if="reason || codeReason" class="danger small" role="alert">{{ reason || codeReason }}</span>
  </form>
</template>
