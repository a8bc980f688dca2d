<script setup lang="ts">
import { computed } from 'vue'
import HelpWord from './HelpWord.vue'
import { termsIn } from './terms'
import { useCatalogue } from './useBuild'

/** A text in which each word of the trade says what it is and how to find it out. */
const props = defineProps<{ text: string }>()
const { data: catalogue } = useCatalogue()
const pieces = computed(() => termsIn(props.text, catalogue.value?.terms ?? []))
</script>

<template>
  <template v-for="(piece, i) in pieces" :key="i"
    ><HelpWord v-if="piece.term" :term="piece.term">{{ piece.text }}</HelpWord
    ><template v-else>{{ piece.text }}</template></template
  >
</template>
