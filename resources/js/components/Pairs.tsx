import css from './pairs.module.css';

/** What arrives: keys and values, in order. */
export function Pairs({ pairs }: { pairs: readonly (readonly string[])[] }) {
  return (
    <table className={css.pairs}>
      <tbody>
        {pairs.map(([key, value], i) => (
          <tr key={`${key} ${i}`}>
            <th scope="row" className="mono">
              {key}
            </th>
            <td className="mono">{value === '' ? <span className="quiet">empty</span> : value}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
