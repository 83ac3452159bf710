import { type Share, type ShareKind, ShareSchema, shareKinds, shareWords } from '@inkwell/core/model';
import { InputNumber, Modal } from 'antd';
import { type FormEvent, useId, useState } from 'react';
import { sentenceOf } from '../../api/client.ts';

/** What a number that is typed is one of. */
const units: Record<ShareKind, { label: string; one: number; step: number }> = {
  bytes: { label: 'Originals and delivered files, in GB', one: 1e9, step: 1 },
  pixels: { label: 'Million pixels in work at a time', one: 1e6, step: 50 },
  jobs: { label: 'Jobs at a time', one: 1, step: 100 },
  uploads: { label: 'Uploads in an hour', one: 1, step: 100 },
  requests: { label: 'Requests in a minute', one: 1, step: 600 },
};

/** Another share for somebody, or for a workspace. */
export function ChangeShare(props: {
  name: string;
  share: Share;
  onSave: (share: Share) => Promise<unknown>;
  onClose: () => void;
}) {
  const { name, share, onSave, onClose } = props;
  const [wanted, setWanted] = useState(share);
  const [state, setState] = useState<'idle' | 'saving' | { problem: string }>('idle');
  const form = useId();
  const save = async (event: FormEvent) => {
    event.preventDefault();
    const checked = ShareSchema.safeParse(wanted);
    if (!checked.success) {
      setState({ problem: checked.error.issues[0]?.message ?? '' });
      return;
    }
    setState('saving');
    try {
      await onSave(checked.data);
      onClose();
    } catch (error) {
      setState({ problem: sentenceOf(error) });
    }
  };
  return (
    <Modal
      open
      title={`The share of ${name}`}
      okText="Save"
      cancelText="Leave as it is"
      okButtonProps={{ htmlType: 'submit', form, loading: state === 'saving' }}
      onCancel={onClose}
    >
      <p className="quiet">Where nothing stands, it is as much as there is.</p>
      <form id={form} className="share-form" onSubmit={save}>
        {shareKinds.map((kind) => (
          <div key={kind}>
            <label htmlFor={`${form}-${kind}`}>{units[kind].label}</label>
            <InputNumber<number>
              id={`${form}-${kind}`}
              value={wanted[kind] === null ? null : wanted[kind] / units[kind].one}
              min={0}
              step={units[kind].step}
              placeholder={shareWords[kind].name === 'Bytes' ? 'All' : 'Any'}
              onChange={(typed) =>
                setWanted({ ...wanted, [kind]: typed === null ? null : Math.round(typed * units[kind].one) })
              }
            />
          </div>
        ))}
      </form>
      {typeof state === 'object' && (
        <p role="alert" className="small making-problem">
          {state.problem}
        </p>
      )}
    </Modal>
  );
}
