/** Tables of thousands of rows come as columns of bytes; the layout is in docs/formats.md. */
export const PACKED = 'application/vnd.mensura.columns';

interface Column {
  name: string;
  kind: 'number' | 'whole' | 'text' | 'flag';
  texts?: string[];
}

interface Head {
  facts: Record<string, unknown>;
  tables: { name: string; count: number; columns: Column[] }[];
}

const NONE = 0xffffffff;

/** Whole numbers and places of texts are differences from the row before. */
function summed(differences: Uint32Array): Uint32Array {
  for (let i = 1; i < differences.length; i += 1) differences[i] = differences[i - 1]! + differences[i]!;
  return differences;
}

function values(column: Column, bytes: ArrayBuffer, at: number, count: number): { read: (i: number) => unknown; size: number } {
  switch (column.kind) {
    case 'number': {
      const numbers = new Float64Array(bytes.slice(at, at + 8 * count));
      return { read: (i) => (Number.isNaN(numbers[i]!) ? null : numbers[i]!), size: 8 * count };
    }
    case 'flag': {
      const flags = new Uint8Array(bytes, at, count);
      return { read: (i) => flags[i] === 1, size: count };
    }
    case 'text': {
      const texts = column.texts ?? [];
      const places = summed(new Uint32Array(bytes.slice(at, at + 4 * count)));
      return { read: (i) => (places[i] === NONE ? null : texts[places[i]!]!), size: 4 * count };
    }
    case 'whole': {
      const numbers = summed(new Uint32Array(bytes.slice(at, at + 4 * count)));
      return { read: (i) => (numbers[i] === NONE ? null : numbers[i]!), size: 4 * count };
    }
  }
}

/** What the same answer would have been as JSON. */
export async function unpack(deflated: Blob): Promise<unknown> {
  const bytes = await new Response(deflated.stream().pipeThrough(new DecompressionStream('deflate'))).arrayBuffer();
  const length = new DataView(bytes).getUint32(0, true);
  const head = JSON.parse(new TextDecoder().decode(new Uint8Array(bytes, 4, length))) as Head;
  const answer = { ...head.facts };
  let at = 4 + length;
  for (const table of head.tables) {
    const rows: Record<string, unknown>[] = Array.from({ length: table.count }, () => ({}));
    for (const column of table.columns) {
      const { read, size } = values(column, bytes, at, table.count);
      for (let i = 0; i < table.count; i += 1) rows[i]![column.name] = read(i);
      at += size;
    }
    answer[table.name] = rows;
  }
  return answer;
}
