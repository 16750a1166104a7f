/** A copy of plain data to edit; what is watched by a page cannot be cloned as it is. */
export const copyOf = <T>(data: T): T => JSON.parse(JSON.stringify(data)) as T;
