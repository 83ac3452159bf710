import './review.css';
import { isSame, sheetDifferences } from '@inkwell/core/bookkeeping';
import { Button, Popconfirm, Select } from 'antd';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { useSheetVersions } from '../../../api/library/sheets.ts';
import { useSpecBook } from '../../../api/library/specBook.ts';
import { ForEditors } from '../../../parts/ForEditors.tsx';
import { Empty, Failure, Skeleton } from '../../../parts/States.tsx';
import { dayWords } from '../dateWords.ts';
import { isChanged, useSheetDrafts } from '../edit/sheetDraft.ts';
import { Differences } from './Differences.tsx';

/** All versions of a sheet, and two of them side by side: what is different, in words and drawn. */
export function VersionsScreen() {
  const { slug } = useParams();
  const [search, setSearch] = useSearchParams();
  const navigate = useNavigate();
  const { data: sheets, error } = useSpecBook();
  const sheet = sheets?.find((one) => one.slug === slug);
  const { data: versions, error: unread } = useSheetVersions(sheet?.own?.id);
  const { drafts, begin } = useSheetDrafts();
  if (error || unread) return <Failure error={error ?? unread} />;
  if (sheets && !sheet?.own) {
    return (
      <div className="page">
        <Empty title="No versions">Only sheets of your own have versions.</Empty>
      </div>
    );
  }
  if (!versions || !sheet?.own) return <Skeleton height={500} />;
  const numberOf = (name: string, otherwise: number) => {
    const asked = Number(search.get(name));
    return versions.some(({ number }) => number === asked) ? asked : otherwise;
  };
  const newest = versions[0]?.number ?? 1;
  const [then, now] = [numberOf('then', Math.max(1, newest - 1)), numberOf('now', newest)];
  const [before, after] = [then, now].map((number) => versions.find((one) => one.number === number));
  if (!before || !after) return <Skeleton height={500} />;
  const difference = sheetDifferences(before.content, after.content);
  const { id } = sheet.own;
  const draft = drafts[id];
  // What an old version says becomes a change on top of the newest one, to be looked at before it is saved.
  const goBack = () => {
    const [latest] = versions;
    if (!latest) return;
    begin(id, { base: latest.number, before: latest.content, content: before.content });
    navigate(`/spec-book/${sheet.slug}/edit/review`);
  };
  const options = versions.map(({ number, savedAt, savedBy, note }) => ({
    value: number,
    label: `Version ${number}, ${dayWords(savedAt)}${savedBy && ` by ${savedBy}`}${note && `: ${note}`}`,
  }));
  const choose = (name: string, label: string, value: number) => (
    <Select
      aria-label={label}
      style={{ width: 360, maxWidth: '100%' }}
      value={value}
      options={options}
      onChange={(number) => {
        const params = new URLSearchParams(search);
        params.set(name, String(number));
        setSearch(params, { replace: true });
      }}
    />
  );
  return (
    <div className="review">
      <header>
        <h1>Versions of {sheet.name}</h1>
        <Link to={`/spec-book/${sheet.slug}`}>Back to the sheet</Link>
      </header>
      <div className="versions-choice">
        {choose('then', 'One version', then)} beside {choose('now', 'Another version', now)}
        <ForEditors>
          {then !== newest &&
            (draft && isChanged(draft) ? (
              <Popconfirm
                title="A change of this sheet is begun and not saved. Throw it away?"
                okText="Throw away"
                cancelText="Keep it"
                onConfirm={goBack}
              >
                <Button>Go back to version {then} …</Button>
              </Popconfirm>
            ) : (
              <Button onClick={goBack}>Go back to version {then} …</Button>
            ))}
        </ForEditors>
      </div>
      {isSame(difference) ? (
        <p>{then === now ? 'Choose two versions to see what is different.' : 'These versions say the same.'}</p>
      ) : (
        <Differences difference={difference} then={`Version ${then}`} now={`Version ${now}`} />
      )}
    </div>
  );
}
