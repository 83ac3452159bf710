import { CheckOutlined, DownOutlined } from '@ant-design/icons';
import type { Workspace } from '@inkwell/core/model';
import { Dropdown } from 'antd';
import { workspaceBase } from '../../api/access/workspaces.ts';

/** The workspace of this page, and the ways to the others. */
export function WorkspaceMenu({ all, current }: { all: readonly Workspace[]; current: Workspace | null }) {
  const items = all.map((one) => ({
    key: one.id,
    icon: <CheckOutlined style={{ visibility: one.id === current?.id ? 'visible' : 'hidden' }} />,
    label: <a href={`${workspaceBase(one)}/`}>{one.name}</a>,
  }));
  const name = current?.name ?? 'Workspaces';
  return (
    <Dropdown menu={{ items }} trigger={['click']}>
      <button type="button" className="plain-button workspace-button" aria-label={`Workspace ${name}: go to another`}>
        <span>{name}</span>
        <DownOutlined />
      </button>
    </Dropdown>
  );
}
