/**
 * Asks again and again while something is typed: only the answer to the last question counts, earlier ones that come late are
 * dropped. `forget` drops the one under way.
 */
export function latest() {
  let turn = 0;
  return {
    async ask<T>(question: () => Promise<T>, answered: (answer: T) => void, refused: (error: unknown) => void): Promise<void> {
      const mine = ++turn;
      try {
        const answer = await question();
        if (mine === turn) answered(answer);
      } catch (error) {
        if (mine === turn) refused(error);
      }
    },
    forget(): void {
      ++turn;
    },
  };
}
