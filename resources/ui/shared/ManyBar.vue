<script setup lang="ts" generic="Row">
import { computed, ref } from 'vue'
import type { useMany } from './useMany'

/** What can be done with the picked rows of a table, and with all of them by way of a spreadsheet. */
const { many } = defineProps<{ many: ReturnType<typeof useMany<Row>> }>()
const column = ref('')
const text = ref('')
const pasting = ref(false)
const pasted = ref('')
const settable = computed(() => many.columns().filter((one) => one.path !== undefined))
const chosen = computed(() => settable.value.find((one) => one.key === column.value))

async function paste(): Promise<void> {
  if (await many.paste(pasted.value)) {
    pasted.value = ''
    pasting.value = false
  }
}
</script>

<template>
  <div class="many" role="group" aria-label="Many at once">
    <template v-if="many.picked.value.size > 0">
      <strong class="figure">{{ many.counted(many.rowsPicked.value.length) }} picked</strong>
      <form class="set" @submit.prevent="many.setAll(column, text)">
        <select v-model="column" aria-label="Column to set" @change="text = ''">
          <option value="">Set a column …</option>
          <option v-for="one in settable" :key="one.key" :value="one.key">{{ one.title }}</option>
        </select>
        <template v-if="chosen">
          <select v-if="chosen.options" v-model="text" :aria-label="`New ${chosen.title}`">
            <option value="">nothing</option>
            <option v-for="one in chosen.options" :key="one.value" :value="one.value">{{ one.title }}</option>
          </select>
          <input v-else v-model="text" class="field" size="12" :aria-label="`New ${chosen.title}`" />
          <v-btn type="submit" size="small" color="primary" :loading="many.busy.value">Set it in all</v-btn>
        </template>
      </form>
      <button type="button" class="plain link" @click="many.copy()">Copy them</button>
      <button type="button" class="plain link danger" :disabled="many.busy.value" @click="many.removeAll()">
        Delete them
      </button>
      <button type="button" class="plain link" @click="many.pickAll(false)">Pick none</button>
    </template>
    <template v-else>
      <button type="button" class="plain link" @click="many.copy()">Copy the table</button>
    </template>
    <button type="button" class="plain link" :aria-expanded="pasting" @click="pasting = !pasting">Paste cells</button>
    <details class="columns">
      <summary class="link">Columns</summary>
      <ul>
        <li v-for="one in many.columns().filter((each) => each.key !== 'ref')" :key="one.key">
          <label
            ><input
              type="checkbox"
              :checked="many.shows(one.key)"
              @change="many.show(one.key, ($event.target as HTMLInputElement).checked)"
            />
            {{ one.title }}</label
          >
        </li>
      </ul>
    </details>
    <form v-if="pasting" class="pasting" @submit.prevent="paste()">
      <textarea
        v-model="pasted"
        rows="5"
        spellcheck="false"
        aria-label="Cells of a spreadsheet, with their headings"
        placeholder="Copied from here, changed in a spreadsheet, pasted back"
      />
      <v-btn type="submit" size="small" color="primary" :disabled="pasted.trim() === ''" :loading="many.busy.value"
        >Store what is different</v-btn
      >
    </form>
    <p v-if="many.reason.value" class="danger" role="alert">{{ many.reason.value }}</p>
  </div>
</template>

<style scoped>
.many {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  align-items: center;
  min-height: 30px;
  font-size: 13px;
}
.set {
  display: flex;
  gap: 6px;
  align-items: center;
}
select {
  font: inherit;
  height: 26px;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 2px;
}
.set .field {
  height: 26px;
}
.columns {
  position: relative;
}
.columns summary {
  cursor: pointer;
}
.columns ul {
  position: absolute;
  z-index: 5;
  margin: 2px 0 0;
  padding: 6px 14px 8px 10px;
  list-style: none;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 2px;
  white-space: nowrap;
}
.pasting {
  display: flex;
  gap: 10px;
  align-items: end;
  width: 100%;
}
.pasting textarea {
  width: min(100%, 620px);
  padding: 4px 6px;
  font: 13px var(--figures);
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 2px;
}
.many p {
  width: 100%;
  margin: 0;
}
</style>
