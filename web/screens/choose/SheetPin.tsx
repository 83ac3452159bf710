import { overdueDays } from '@inkwell/core/bookkeeping';
import type { SpecSheet } from '@inkwell/core/model';
import { useQueryClient } from '@tanstack/react-query';
import { Select } from 'antd';
import { saveProject } from '../../api/projects/projects.ts';
import { counted } from '../../parts/counted.ts';
import { today } from '../../parts/today.ts';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { useOpenProject } from '../ProjectLayout.tsx';

/** So many versions are offered, the newest first. */
const mostOffered = 20;

/** Whether a project follows a sheet, or stays on a version of it; and how old its numbers are where that is too old. */
export function SheetPin({ sheet }: { sheet: SpecSheet }) {
  const project = useOpenProject();
  const client = useQueryClient();
  const note = useUndoNote();
  const newest = sheet.newest ?? sheet.own?.version ?? 1;
  const pinned = project.pins[sheet.slug] ?? 0;
  const overdue = overdueDays(sheet, today());
  const choose = async (number: number) => {
    const { [sheet.slug]: _, ...others } = project.pins;
    const pins = number === 0 ? others : { ...others, [sheet.slug]: number };
    try {
      const saved = await saveProject(project.id, project.version, { pins });
      if ('elsewhere' in saved) note.warned('Not saved', 'The project was changed in another window. Try again.');
      const keys = ['project', 'spec-book', 'measured'];
      await Promise.all(keys.map((key) => client.invalidateQueries({ queryKey: [key] })));
    } catch (error) {
      note.failed(error);
    }
  };
  // Where there is only one version there is nothing to choose.
  const isOffered = newest > 1 || pinned > 0;
  if (!isOffered && overdue === null) return null;
  const lately = Array.from({ length: Math.min(newest, mostOffered) }, (_, index) => newest - index);
  const offered = pinned === 0 || lately.includes(pinned) ? lately : [...lately, pinned];
  return (
    <div className="choose-pin small">
      {isOffered && (
        <Select<number>
          size="small"
          aria-label={`Version of ${sheet.name} for this project`}
          value={pinned}
          onChange={choose}
          options={[
            { value: 0, label: `Follows the newest, ${newest}` },
            ...offered.map((value) => ({ value, label: `Stays on version ${value}` })),
          ]}
        />
      )}
      {overdue !== null && <span className="choose-overdue">checked {counted(overdue, 'day')} ago</span>}
    </div>
  );
}
