/**
 * Sends changes one after the other, in the order they were made, and tells which answer is the last: while others are on
 * their way, an answer does not yet know of them.
 */
export function inOrder() {
  let before: Promise<unknown> = Promise.resolve();
  let made = 0;
  let waiting = 0;
  return {
    /** Whether changes are on their way whose answers have not come. */
    busy: () => waiting > 0,
    async send<T>(change: () => Promise<T>, answered: (answer: T) => void): Promise<void> {
      const mine = ++made;
      waiting += 1;
      const turn = before.catch(() => undefined).then(change);
      before = turn;
      try {
        const answer = await turn;
        waiting -= 1;
        if (mine === made) answered(answer);
      } catch (error) {
        waiting -= 1;
        throw error;
      }
    },
  };
}
