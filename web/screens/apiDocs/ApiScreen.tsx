import './ApiScreen.css';
import { Input } from 'antd';
import { useDeferredValue, useEffect, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { type ApiDescription, apiDescriptionUrl, type Operation, useApiDescription } from '../../api/apiDescription.ts';
import { api } from '../../api/client.ts';
import { Failure, Skeleton } from '../../parts/States.tsx';
import { RouteEntry } from './RouteEntry.tsx';
import { SchemaOutline } from './SchemaOutline.tsx';

interface Route {
  method: string;
  path: string;
  operation: Operation;
}

const routesOf = ({ paths }: ApiDescription): Route[] =>
  Object.entries(paths).flatMap(([path, operations]) =>
    Object.entries(operations).map(([method, operation]) => ({ method, path, operation })),
  );

const isFound = ({ method, path, operation }: Route, words: string): boolean =>
  `${method} ${path} ${operation.summary}`.toLowerCase().includes(words.toLowerCase().trim());

/** What the API takes and answers, for people who write programs: as an index beside entries, like a reference book. */
export function ApiScreen() {
  const { data, error, refetch } = useApiDescription();
  const [find, setFind] = useState('');
  const words = useDeferredValue(find);
  useShownHash(data !== undefined);
  if (error && !data) {
    return (
      <div className="page">
        <Failure error={error} again={() => void refetch()} />
      </div>
    );
  }
  const routes = data ? routesOf(data).filter((route) => isFound(route, words)) : [];
  const groups = (data?.tags ?? []).flatMap(({ name }) => {
    const own = routes.filter(({ operation }) => operation.tags.includes(name));
    return own.length > 0 ? [{ name, routes: own }] : [];
  });
  return (
    <div className="page api-page">
      <nav className="api-index" aria-label="Things of the API">
        <Input
          type="search"
          aria-label="Find a route"
          placeholder="Find a route"
          value={find}
          onChange={({ target }) => setFind(target.value)}
        />
        {groups.map(({ name, routes: { length } }) => (
          <a key={name} href={`#${idOf(name)}`}>
            {name} <span className="quiet small">{length}</span>
          </a>
        ))}
        {data && <a href="#things">What is taken and answered</a>}
      </nav>
      <div className="api-entries">
        <h1>What programs can ask for</h1>
        <p>{data && <WithCode text={data.info.description} />}</p>
        <p className="quiet">
          A program shows its token in the header <code>Authorization</code>. <Link to="/programs">Make a token</Link>,
          or take the whole description <a href={apiDescriptionUrl}>as OpenAPI 3.1</a>. Tried from a terminal:
        </p>
        <pre>
          curl -H "Authorization: Bearer $TOKEN" {location.origin}
          {api}/projects
        </pre>
        {!data && <Skeleton height={400} />}
        {data && groups.length === 0 && <p>No route is about “{words}”.</p>}
        {groups.map((group) => (
          <section key={group.name} id={idOf(group.name)} aria-labelledby={`${idOf(group.name)}-title`}>
            <h2 id={`${idOf(group.name)}-title`}>{group.name}</h2>
            {group.routes.map(({ method, path, operation }) => (
              <RouteEntry key={operation.operationId} method={method} path={path} operation={operation} />
            ))}
          </section>
        ))}
        {data && (
          <section id="things" aria-labelledby="things-title">
            <h2 id="things-title">What is taken and answered</h2>
            {Object.entries(data.components.schemas).map(([name, schema]) => (
              <details key={name} id={`thing-${name}`} className="api-entry">
                <summary>{name}</summary>
                <SchemaOutline schema={schema} />
              </details>
            ))}
          </section>
        )}
      </div>
    </div>
  );
}

/** A text with its code between backticks, as descriptions in OpenAPI are written. */
const WithCode = ({ text }: { text: string }) =>
  text.split('`').map((part, index) => (index % 2 === 1 ? <code key={index}>{part}</code> : part));

const idOf = (name: string) => name.toLowerCase().replaceAll(' ', '-');

/** Opens and shows what the address names, once it is there. */
function useShownHash(isThere: boolean) {
  const { hash } = useLocation();
  useEffect(() => {
    if (!isThere || hash === '') return;
    const named = document.getElementById(decodeURIComponent(hash.slice(1)));
    if (named instanceof HTMLDetailsElement) named.open = true;
    named?.scrollIntoView();
  }, [isThere, hash]);
}
