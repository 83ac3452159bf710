import { FilterOutlined } from '@ant-design/icons';
import { Badge, Button, Dropdown } from 'antd';
import { counted } from '../../../parts/counted.ts';
import { filterWords, type StripFilter, type StripSort, sortWords } from './stripOrder.ts';
import type { useStrip } from './useStrip.ts';

/** In which order the originals stand in the strip, which of them, and all of them selected at once. */
export function StripMenu({ strip, count }: { strip: ReturnType<typeof useStrip>; count: number }) {
  const { originals, order, setOrder, select } = strip;
  const isFiltered = order.filter !== 'all';
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        selectable: true,
        multiple: true,
        selectedKeys: [order.sort, order.filter],
        items: [
          {
            type: 'group',
            label: 'Order',
            children: (Object.keys(sortWords) as StripSort[]).map((sort) => ({
              key: sort,
              label: sortWords[sort],
              onClick: () => setOrder({ ...order, sort }),
            })),
          },
          {
            type: 'group',
            label: 'Show',
            children: (Object.keys(filterWords) as StripFilter[]).map((filter) => ({
              key: filter,
              label: filterWords[filter],
              onClick: () => setOrder({ ...order, filter }),
            })),
          },
          { type: 'divider' },
          {
            key: 'select',
            label: `Select ${originals.length === count ? 'all' : 'these'} ${originals.length}`,
            disabled: originals.length === 0,
            onClick: () => select(new Set(originals.map(({ id }) => id))),
          },
        ],
      }}
    >
      <Button
        size="small"
        className="strip-menu"
        icon={<FilterOutlined />}
        title="Order, filter and select the pictures"
        aria-label={`Pictures in the strip: ${filterWords[order.filter]}, ${counted(originals.length, 'picture')}`}
      >
        <Badge dot={isFiltered}>
          {originals.length}
          {isFiltered && ` of ${count}`}
        </Badge>
      </Button>
    </Dropdown>
  );
}
