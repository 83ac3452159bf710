import { useEffect } from 'react';
import { useStore } from 'zustand';
import { openBook, pageFonts } from '../../../fonts/pageFonts.ts';
import { ChoiceField } from '../../../parts/fields/ChoiceField.tsx';

/** A choice of all families that words can be set in; one that was put aside stays where it is chosen. */
export function FontField(props: { label: string; name?: string; family: string; onChoose: (id: string) => void }) {
  const { label, name = label, family, onChoose } = props;
  const families = useStore(pageFonts, ({ book }) => book?.families);
  useEffect(() => {
    if (!families) openBook().catch(() => pageFonts.setState({ failed: true }));
  }, [families]);
  return (
    <ChoiceField
      label={label}
      name={name}
      value={family}
      choices={(families ?? [])
        .filter(({ id, isHidden }) => !isHidden || id === family)
        .map(({ id, name, kind }) => [id, `${name}, ${kind}`])}
      disabled={!families}
      onChoose={onChoose}
    />
  );
}
