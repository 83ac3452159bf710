import type { Schema } from '../../api/apiDescription.ts';
import { branchesOf, fieldsOf, nameOf, schemaWords } from './schemaWords.ts';

/** Deeper than this, an object is only named. */
const deepest = 4;

/** What a JSON value is made of, field by field; things that are described once are only named. */
export function SchemaOutline({ schema, depth = 0 }: { schema: Schema; depth?: number }) {
  const name = nameOf(schema);
  if (name !== null) return <ThingLink name={name} />;
  if (schema.type === 'array' && schema.items) {
    const { items } = schema;
    if (isTold(items)) return <Words schema={schema} />;
    return (
      <>
        A list, each of:
        <SchemaOutline schema={items} depth={depth} />
      </>
    );
  }
  const branches = branchesOf(schema);
  if (branches?.some((one) => !isTold(one))) {
    return (
      <>
        One of:
        <ul className="outline">
          {branches.map((one, index) => (
            <li key={index}>
              <SchemaOutline schema={one} depth={depth + 1} />
            </li>
          ))}
        </ul>
      </>
    );
  }
  const fields = fieldsOf(schema);
  if (!fields || depth >= deepest) return <Words schema={schema} />;
  return (
    <ul className="outline">
      {fields.map((field) => (
        <li key={field.name}>
          <code>{field.name}</code>
          {!field.isNeeded && <span className="quiet small"> optional</span>}{' '}
          {isTold(field.schema) && <Words schema={field.schema} />}
          {field.schema.description && <span className="quiet small"> {field.schema.description}</span>}{' '}
          {!isTold(field.schema) && <SchemaOutline schema={field.schema} depth={depth + 1} />}
        </li>
      ))}
    </ul>
  );
}

/** Whether a value is told in a few words, without fields of its own. */
function isTold(schema: Schema): boolean {
  if (schema.$ref) return true;
  if (schema.items) return isTold(schema.items);
  const branches = branchesOf(schema);
  return branches ? branches.every(isTold) : fieldsOf(schema) === null;
}

/** A few words about a value, with the things that it names as links. */
function Words({ schema }: { schema: Schema }) {
  const name = nameOf(schema);
  if (name !== null) return <ThingLink name={name} />;
  if (schema.items) {
    return (
      <>
        list of <Words schema={schema.items} />
      </>
    );
  }
  const branches = branchesOf(schema);
  if (!branches) return <span>{schemaWords(schema)}</span>;
  return (
    <>
      {branches.map((one, index) => (
        <span key={index}>
          {index > 0 && ', or '}
          <Words schema={one} />
        </span>
      ))}
    </>
  );
}

const ThingLink = ({ name }: { name: string }) => <a href={`#thing-${name}`}>{name}</a>;
