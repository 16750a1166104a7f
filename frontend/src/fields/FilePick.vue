<script setup lang="ts">
import type { UploadFile } from 'element-plus';

/** A button that asks for files and hands over all that were chosen at once. */
defineProps<{ text: string; accept?: string; multiple?: boolean; folder?: boolean; disabled?: boolean; main?: boolean; test: string }>();
const emit = defineEmits<{ files: [files: File[]] }>();
let gathered: File[] = [];

// The files of one choice come one by one, all in the same turn.
function take(file: UploadFile) {
  if (!file.raw) return;
  if (gathered.length === 0)
    queueMicrotask(() => {
      const files = gathered;
      gathered = [];
      emit('files', files);
    });
  gathered.push(file.raw);
}
</script>

<template>
  <ElUpload
    class="file-pick"
    action=""
    :auto-upload="false"
    :show-file-list="false"
    :multiple="multiple"
    :directory="folder"
    :accept="accept"
    :disabled="disabled"
    :data-test="test"
    @change="take"
  >
    <ElButton :type="main ? 'primary' : ''" :disabled="disabled" tag="span">{{ text }}</ElButton>
  </ElUpload>
</template>
