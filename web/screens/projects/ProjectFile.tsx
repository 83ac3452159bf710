import { FolderOpenOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { type SheetConflict, type SheetsOf, useProjectFile } from '../../api/projects/projectFiles.ts';
import { FileButton } from '../../parts/FileButton.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';

/** A file about which somebody has to choose. */
interface Asked {
  file: File;
  conflicts: SheetConflict[];
}

/** What takes a project in from a file: the button, and the question whose sheets hold where that matters. */
export function useProjectFileButton() {
  const take = useProjectFile();
  const [asked, setAsked] = useState<Asked | null>(null);
  const navigate = useNavigate();
  const note = useUndoNote();
  const open = async (file: File, sheets: SheetsOf | null) => {
    setAsked(null);
    try {
      const taken = await take.mutateAsync({ file, sheets });
      if ('conflicts' in taken) {
        setAsked({ file, conflicts: taken.conflicts });
        return;
      }
      const { project, notes } = taken;
      if (notes.length > 0) note.warned(`${project.name} is here`, notes.map(({ text }) => text).join(' '));
      navigate(`/projects/${project.id}`);
    } catch (error) {
      note.failed(error);
    }
  };
  const button = (
    <FileButton
      icon={<FolderOpenOutlined />}
      loading={take.isPending}
      accept=".zip,application/zip"
      name="A project file"
      onFile={(file) => void open(file, null)}
    >
      Open a project file …
    </FileButton>
  );
  const question = asked && (
    <section role="alert" className="sheet project-asked">
      <p>
        <strong>Some sheets say something else here than in {asked.file.name}.</strong> Nothing was taken yet.
      </p>
      <ul>
        {asked.conflicts.map(({ name, places }) => (
          <li key={name}>
            {name}
            {places.length > 0 && <span className="quiet">: {places.join(', ')}</span>}
          </li>
        ))}
      </ul>
      <span className="row wrap">
        <Button type="primary" onClick={() => void open(asked.file, 'here')}>
          Frame by the sheets here
        </Button>
        <Button onClick={() => void open(asked.file, 'file')}>Bring the file’s, as sheets of my own</Button>
        <Button type="text" onClick={() => setAsked(null)}>
          Do not take it
        </Button>
      </span>
    </section>
  );
  return { button, question };
}
