import { choice, number, text } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { readTable, type Table } from '../../core/table';

export default signalKind({
  id: 'table',
  label: 'Table',
  summary: 'Numbers from a table: every column a lane, all rows at once or those that are asked for.',
  words: ['csv', 'json', 'spreadsheet', 'data', 'list', 'rows', 'columns', 'index', 'look up'],
  inputs: {},
  controls: {
    csv: text({
      label: 'Table',
      help: 'Rows of numbers parted by commas, semicolons or tabs, where a first row without numbers names the columns; or JSON.',
      default: 'x, y\n0, 0\n0.5, 0.8\n1, 0.2',
      lines: 6,
      opens: '.csv,.tsv,.txt,.json',
    }),
    gives: choice({
      label: 'Gives',
      help: 'All rows as samples, or the rows that the index asks for.',
      options: { all: 'All rows', index: 'By index' },
      default: 'all',
    }),
    index: number({
      label: 'Index',
      help: 'Which row, from 0; many values ask for many rows. It goes round the end.',
      default: 0,
      range: [0, 16],
      many: true,
      shownIf: (c) => c.gives === 'index',
    }),
    between: choice({
      label: 'Between rows',
      help: 'What an index that is not whole gives.',
      options: { row: 'The row before', mix: 'A mix of both' },
      default: 'row',
      shownIf: (c) => c.gives === 'index',
    }),
  },
  naturalRange: (c) => {
    const values = readSafely(c.csv).columns.flatMap((column) => [...column]);
    return values.length ? [Math.min(0, ...values), Math.max(...values)] : [0, 1];
  },
  moves: () => false,
  recalls: false,
  memory: (): { text: string | null; table: Table } => ({ text: null, table: { names: [], columns: [] } }),
  compute({ controls: c, count, memory, out }) {
    if (memory.text !== c.csv) {
      memory.table = readTable(c.csv);
      memory.text = c.csv;
    }
    const { names, columns } = memory.table;
    const rows = columns[0]?.length ?? 0;
    if (!rows) {
      out.layout(names.length ? names : ['value'], 1).forEach((into) => into.fill(0));
      return;
    }
    const lanes = out.layout(names, c.gives === 'all' ? rows : count);
    lanes.forEach((into, k) => {
      const column = columns[k];
      if (c.gives === 'all') into.set(column);
      else
        for (let i = 0; i < into.length; i++) {
          const at = c.index[c.index.length === 1 ? 0 : i];
          const low = Math.floor(at);
          const here = column[((low % rows) + rows) % rows];
          const next = column[(((low + 1) % rows) + rows) % rows];
          into[i] = c.between === 'mix' ? here + (next - here) * (at - low) : here;
        }
    });
  },
});

/** A table that cannot be read says so when it is computed; here it has nothing to give. */
function readSafely(csv: string): Table {
  try {
    return readTable(csv);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return { names: [], columns: [] };
  }
}
