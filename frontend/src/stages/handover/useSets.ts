import { computed, onMounted, ref, shallowRef, watch, type Ref } from 'vue';
import { get, post, put, remove } from '../../api/client';
import { copyOf } from '../../api/copyOf';
import type { ExportRequest, ExportView } from '../../api/types';
import { useProject } from '../../state/project';

interface Kept {
  id: number;
  version: number;
  files: ExportView[];
}

/**
 * Sets of what goes to others: one is chosen and edited as a draft, what would go along is asked a moment after the last change, and
 * it is written. `kind` stands in addresses and is the kind of export; `asked` is where it is asked before.
 */
export function useSets<Set extends Kept, View extends { sets: Set[] }, Request extends { name: string }, Before>(
  kind: string,
  asked: string,
  begin: (kept: Set | null) => Request,
  done: string,
) {
  const project = useProject();
  const at = `/handover/${kind}`;
  const data = shallowRef<View | null>(null);
  const chosen = ref(0);
  const draft = ref(begin(null)) as Ref<Request>;
  const before = shallowRef<Before | null>(null);
  const problem = ref('');
  let timer = 0;
  let turn = 0;

  const kept = computed<Set | null>(() => data.value?.sets.find((s: Set) => s.id === chosen.value) ?? null);
  const file = computed(() => kept.value?.files[0] ?? null);

  async function load() {
    data.value = await get<View>(project.path(at));
    if (!kept.value && data.value.sets[0] && draft.value.name === '') choose(data.value.sets[0].id);
  }
  function choose(id: number) {
    chosen.value = id;
    draft.value = copyOf(begin(kept.value));
  }
  watch(
    draft,
    () => {
      window.clearTimeout(timer);
      const mine = (turn += 1);
      timer = window.setTimeout(async () => {
        try {
          const found = await post<Before>(project.path(`${at}/${asked}`), { ...draft.value, name: draft.value.name || 'draft' });
          if (mine === turn) [before.value, problem.value] = [found, ''];
        } catch (e) {
          if (mine === turn) [before.value, problem.value] = [null, String(e instanceof Error ? e.message : e)];
        }
      }, 300);
    },
    { deep: true, immediate: true },
  );
  watch(() => project.version, load);
  onMounted(load);

  async function write() {
    const of = kept.value;
    let id = 0;
    const ok = await project.attempt(async () => {
      const body = { ...draft.value, name: draft.value.name.trim() };
      const answer = of
        ? await put<{ set: number }>(project.path(`${at}/${of.id}`), body, of.version)
        : await post<{ set: number }>(project.path(at), body);
      id = answer.set;
      await project.job(post(project.path('/handover'), { kind, surfaces: [id] } satisfies ExportRequest));
    }, done);
    await load();
    if (ok) choose(id);
  }
  async function away() {
    if (kept.value && (await project.attempt(() => remove(project.path(`${at}/${kept.value!.id}`))))) {
      await load();
      choose(data.value?.sets[0]?.id ?? 0);
    }
  }

  return { data, chosen, draft, before, problem, kept, file, choose, write, away };
}
