<script setup lang="ts">
import { computed, reactive } from 'vue';
import { differing, type Conflict, type ConflictField } from '../api/conflict';
import { when } from '../format/units';

const props = defineProps<{ what: string; conflict: Conflict; fields: ConflictField[]; mine: Record<string, unknown> }>();
const emit = defineEmits<{ theirs: []; save: [values: Record<string, unknown>, seen: string] }>();

const rows = computed(() => differing(props.fields, props.conflict.theirs, props.mine));
const picked = reactive<Record<string, 'theirs' | 'mine'>>({});
const side = (key: string) => picked[key] ?? 'mine';
const isMixed = computed(() => rows.value.some((f) => side(f.key) === 'theirs'));

function save() {
  const values = { ...props.mine };
  for (const f of rows.value) if (side(f.key) === 'theirs') values[f.key] = props.conflict.theirs[f.key];
  emit('save', values, props.conflict.version);
}
</script>

<template>
  <section class="conflict" role="alertdialog" :aria-label="`${what} was changed by someone else`">
    <h2>{{ what }} was changed while you edited it</h2>
    <p class="quiet">
      {{ conflict.author ?? 'Someone' }}<template v-if="conflict.at">, {{ when(conflict.at) }}</template
      ><template v-if="conflict.change">: {{ conflict.change }}</template>
    </p>
    <p v-if="rows.length === 0" class="quiet">Both of you wrote the same.</p>
    <table v-else>
      <thead>
        <tr>
          <th scope="col">field</th>
          <th scope="col">theirs</th>
          <th scope="col">mine</th>
          <th scope="col">take</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="f in rows" :key="f.key">
          <th scope="row">{{ f.label }}</th>
          <td class="mono" :class="{ taken: side(f.key) === 'theirs' }">{{ f.text(conflict.theirs[f.key]) || 'none' }}</td>
          <td class="mono" :class="{ taken: side(f.key) === 'mine' }">{{ f.text(mine[f.key]) || 'none' }}</td>
          <td>
            <ElRadioGroup
              :model-value="side(f.key)"
              size="small"
              :aria-label="`${f.label}: whose value`"
              @update:model-value="(v) => (picked[f.key] = v as 'theirs' | 'mine')"
              ><ElRadio value="theirs">theirs</ElRadio><ElRadio value="mine">mine</ElRadio></ElRadioGroup
            >
          </td>
        </tr>
      </tbody>
    </table>
    <div class="actions">
      <ElButton type="primary" data-test="save-mine" @click="save">{{ isMixed ? 'Save as taken' : 'Save mine' }}</ElButton>
      <ElButton data-test="keep-theirs" @click="emit('theirs')">Keep theirs</ElButton>
    </div>
  </section>
</template>

<style scoped>
.conflict {
  display: grid;
  gap: 8px;
}
h2 {
  margin: 0;
  font-size: 14px;
}
p {
  margin: 0;
}
table {
  border-collapse: collapse;
  justify-self: start;
}
th,
td {
  padding: 3px 14px 3px 0;
  text-align: left;
  font-weight: normal;
  border-bottom: 1px solid var(--rule);
}
thead th {
  color: var(--ink-soft);
}
td.mono {
  color: var(--ink-soft);
}
td.taken {
  color: var(--ink);
  font-weight: 600;
}
.actions {
  display: flex;
  gap: 8px;
}
</style>
