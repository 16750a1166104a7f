import { get } from '../../api/client';
import type { PreviewView } from '../../api/types';
import { isJob, type useProject } from '../../state/project';

/** A large file is read by a job; its preview is there when that is done, unless something changed meanwhile. */
type Answer = PreviewView | { id: number; job: string };
const ROUNDS = 3;

export async function settled(project: ReturnType<typeof useProject>, asked: Promise<Answer>): Promise<PreviewView> {
  let answer = await asked;
  for (let round = 0; isJob(answer); round += 1) {
    if (round >= ROUNDS) throw new Error('the project changes faster than this file can be read; open it again');
    await project.job(Promise.resolve(answer));
    answer = await get<Answer>(project.path(`/intake/${answer.id}`));
  }
  return answer;
}
