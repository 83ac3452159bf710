import { useState } from 'react';
import type { Operation, Schema } from '../../api/apiDescription.ts';
import { SchemaOutline } from './SchemaOutline.tsx';
import { schemaWords } from './schemaWords.ts';

/** One route: what it is for, and, opened, what it takes and answers. */
export function RouteEntry({ method, path, operation }: { method: string; path: string; operation: Operation }) {
  // What is closed is not drawn: a hundred routes have some thousand fields.
  const [isOpen, setOpen] = useState(false);
  const { summary, description, parameters, requestBody, responses } = operation;
  return (
    <details className="api-entry" onToggle={({ currentTarget }) => setOpen(currentTarget.open)}>
      <summary>
        <code>
          <span className="api-method">{method.toUpperCase()}</span> {path}
        </code>
        <span>{summary}</span>
      </summary>
      {isOpen && (
        <div className="api-entry-body">
          {description && <p>{description}</p>}
          {parameters.length > 0 && (
            <table className="figures api-parameters">
              <tbody>
                {parameters.map(({ name, in: where, required, schema }) => (
                  <tr key={name}>
                    <th scope="row">
                      <code>{name}</code>
                    </th>
                    <td>{where === 'path' ? 'in the path' : 'behind the question mark'}</td>
                    <td>
                      {schemaWords(schema)}
                      {!required && where === 'query' && ', optional'}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {requestBody && <Part title="Takes" content={requestBody.content} />}
          {Object.entries(responses).map(([status, { content = {} }]) =>
            status === 'default' ? null : <Part key={status} title={`Answers ${status}`} content={content} />,
          )}
        </div>
      )}
    </details>
  );
}

function Part({ title, content }: { title: string; content: Record<string, { schema?: Schema | undefined }> }) {
  const types = Object.entries(content);
  const [[type, first] = ['', {}]] = types;
  return (
    <section className="api-part">
      <h3>{title}</h3>
      {types.length === 0 && <p>Nothing.</p>}
      {first.schema ? (
        <>
          <p className="quiet small">{type}</p>
          <SchemaOutline schema={first.schema} />
        </>
      ) : (
        types.length > 0 && <p>A file: {types.map(([one]) => one).join(', ')}.</p>
      )}
    </section>
  );
}
