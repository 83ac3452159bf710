import './door.css';
import type { FormEvent, ReactNode } from 'react';
import { sentenceOf } from '../../api/client.ts';

/** A page before the door: the name of the program, and what to do here. */
export function DoorPage({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="door">
      <section className="sheet door-sheet" aria-labelledby="door-title">
        <p className="door-name">
          <img src="/mark.svg" alt="" width={22} height={22} />
          <span>Inkwell Frame</span>
        </p>
        <h1 id="door-title">{title}</h1>
        {children}
      </section>
    </main>
  );
}

/** A form before the door, with why what was sent was not taken. */
export function DoorForm(props: { error: unknown; onSubmit: () => void; children: ReactNode }) {
  const { error, onSubmit, children } = props;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onSubmit();
  };
  return (
    <form className="door-form" onSubmit={submit}>
      {children}
      {error != null && (
        <p role="alert" className="door-problem">
          {sentenceOf(error)}
        </p>
      )}
    </form>
  );
}
