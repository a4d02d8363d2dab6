import { shortNumber } from '../../../core/text/short-number';
import { laneColours } from './lane-colours';

const mostRows = 200;

/** Numbers in rows, the first of them where there are many. */
export function NumberTable({
  heads,
  rows,
  count,
}: {
  heads: readonly string[];
  rows: number;
  count: (row: number, column: number) => number;
}) {
  return (
    <div className="w-72 shrink-0 overflow-auto border-l edge">
      <table className="figures w-full text-right text-2xs" data-testid="table">
        <thead className="panel sticky top-0">
          <tr>
            <th className="px-2 py-0.5 font-normal">i</th>
            {heads.map((head, k) => (
              <th
                key={head}
                className="px-2 py-0.5 font-semibold"
                style={{ color: laneColours[k % laneColours.length] }}
              >
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {Array.from({ length: Math.min(mostRows, rows) }, (_, row) => (
            <tr key={row} className="border-t edge">
              <td className="quiet px-2">{row}</td>
              {heads.map((head, k) => (
                <td key={head} className="px-2">
                  {shortNumber(count(row, k), 4)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {rows > mostRows && <p className="quiet p-2 text-2xs">and {rows - mostRows} more</p>}
    </div>
  );
}
