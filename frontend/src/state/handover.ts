import { get, post } from '../api/client';
import type { ExportRequest, ExportView, HandOverView } from '../api/types';
import type { useProject } from './project';

/** Writes a file for one thing that is chosen, as every one that is handed over, and opens it when its receipt holds. */
export async function writeAndOpen(project: ReturnType<typeof useProject>, kind: string, number: number): Promise<void> {
  const ok = await project.attempt(
    () => project.job(post(project.path('/handover'), { kind, surfaces: [number] } satisfies ExportRequest)),
    'Written and read back; it is in the archive of Hand-over.',
  );
  if (!ok) return;
  const { exports } = await get<HandOverView>(project.path('/handover'));
  const file: ExportView | undefined = exports.find((x) => x.slot === `export:${kind}:${number}`);
  if (file?.holds) window.open(project.path(`/handover/${file.id}/file`), '_blank');
}
