import './making.css';
import type { ReactNode } from 'react';

/**
 * A list as a table, a row for each. In a small window each row stands by itself: cells with a
 * `data-label` say there what they are.
 */
export function ListTable(props: {
  heads: readonly string[];
  /** Whether the last column is what can be done with each. @default true */
  hasActions?: boolean;
  children: ReactNode;
}) {
  const { heads, hasActions = true, children } = props;
  return (
    <table className="list-table">
      <thead>
        <tr>
          {heads.map((head) => (
            <th key={head}>{head}</th>
          ))}
          {hasActions && (
            <th>
              <span className="visually-hidden">What can be done</span>
            </th>
          )}
        </tr>
      </thead>
      <tbody>{children}</tbody>
    </table>
  );
}
