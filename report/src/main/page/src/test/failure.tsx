// Why something failed: what it said, what was expected, where it came from.
import { diffLines, diffWordsWithSpace, type ChangeObject } from 'diff';
import type { ComponentChildren } from 'preact';
import { comparedJson } from '../exchanges/differences';
import { count, whole } from '../words/text';
import { Thumbnails } from '../attachments/viewer';
import type { Failure, Attachment } from '../data/types';
import { t } from '../words/texts';

const LONGEST_DIFF = 20_000;
const LONGEST_JSON = 400_000;
const MAX_IMAGES = 2;
/** As VisualCheck names them. */
const COMPARED = ['expected', 'shown', 'difference'];

interface Props {
  failure: Failure;
  /** The test's attachments: its last screenshots are shown beside it. */
  attachments?: Attachment[];
  /** What else is known of it. */
  children?: ComponentChildren;
}

export function FailureBox({ failure, attachments = [], children }: Props) {
  const images = imagesOf(attachments);
  const content = (
    <>
      <div>
        <FailureDetail failure={failure} />
        {children}
      </div>
      {images.length > 0 && <Thumbnails attachments={images} all={attachments} />}
    </>
  );
  const look = `failure ${images.length > 0 ? 'with-images' : ''}`;
  // A landmark is the test's own failure: those of its steps, and those that it gathers, stand in it or beside it.
  if (!children) return <div class={look}>{content}</div>;
  return (
    <section class={look} aria-label={t('Failure')}>
      {content}
    </section>
  );
}

/** What a visual check compared says more than what the whole window showed. */
function imagesOf(attachments: Attachment[]): Attachment[] {
  const all = attachments.filter((attachment) => attachment.kind === 'screenshot' && attachment.href);
  const difference = all.findLast((attachment) => attachment.name.endsWith(': difference'));
  const name = difference?.name.slice(0, -'difference'.length);
  const compared = all.filter((attachment) => name && COMPARED.some((part) => attachment.name === name + part));
  return compared.length > 0 ? compared.slice(-COMPARED.length) : all.slice(-MAX_IMAGES);
}

function FailureDetail({ failure }: { failure: Failure }) {
  const { expected, actual } = failure;
  const part = partThatSaysAll(failure);
  if (part) return <FailureDetail failure={part} />;
  const compared = expected !== undefined && actual !== undefined;
  return (
    <>
      <p class="type code">{failure.type}</p>
      {failure.message && <pre class="message">{failure.message.trim()}</pre>}
      {compared && <Difference expected={expected} actual={actual} />}
      {failure.gathered?.map((one, index) => (
        <FailureBox key={index} failure={one} />
      ))}
      <details>
        <summary>{t('Stack trace')}</summary>
        <Stack failure={failure} />
      </details>
    </>
  );
}

/** Of one that gathers a single other and says no more: that other one. */
function partThatSaysAll({ message, gathered }: Failure): Failure | undefined {
  const [part, more] = gathered ?? [];
  return part?.message !== undefined && !more && /^1 check failed/.test(message ?? '') && message!.includes(part.message.split('\n')[0]!) ? part : undefined;
}

interface Part {
  lines: string[];
  isOwn: boolean;
}

const FEW = 2;

/** The suite's own frames strong, those of libraries between them folded. */
function Stack({ failure }: { failure: Failure }) {
  const own = new Set(failure.own);
  const parts: Part[] = [];
  failure.stack.split('\n').forEach((line, index) => {
    const isFrame = /^\s*(at |\.\.\. )/.test(line);
    const isOwn = own.has(index) || !isFrame;
    const last = parts.at(-1);
    if (last && last.isOwn === isOwn) last.lines.push(line);
    else parts.push({ lines: [line], isOwn });
  });
  return (
    <div class="stack">
      {parts.map((part, index) =>
        part.isOwn || part.lines.length <= FEW ? (
          <pre key={index}>{part.lines.map((line, at) => (part.isOwn && /^\s*at /.test(line) ? <b key={at}>{line + '\n'}</b> : line + '\n'))}</pre>
        ) : (
          <details key={index} class="folded">
            <summary>{t('{0} frames of libraries', whole(part.lines.length))}</summary>
            <pre>{part.lines.join('\n')}</pre>
          </details>
        ),
      )}
    </div>
  );
}

const MAX_PATHS = 30;

/** By path where both are JSON; the whole texts are one click away. */
function Difference({ expected, actual }: { expected: string; actual: string }) {
  const json = expected.length + actual.length > LONGEST_JSON ? undefined : comparedJson(expected, actual);
  if (!json) return <TextDifference expected={expected} actual={actual} />;
  const more = json.more + Math.max(0, json.differences.length - MAX_PATHS);
  return (
    <>
      <table class="paths">
        <thead>
          <tr>
            <th scope="col">{t('path')}</th>
            <th scope="col">{t('expected')}</th>
            <th scope="col">{t('actual')}</th>
          </tr>
        </thead>
        <tbody>
          {json.differences.slice(0, MAX_PATHS).map(({ what, here, there }) => (
            <tr key={what}>
              <th scope="row" class="code">{what.trim()}</th>
              <td data-name={t('expected')}>{here === undefined ? <i class="dim">{t('not there')}</i> : <mark class="expected">{here}</mark>}</td>
              <td data-name={t('actual')}>{there === undefined ? <i class="dim">{t('not there')}</i> : <mark class="actual">{there}</mark>}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p class="dim">
        {more > 0 && t('and {0} more', whole(more)) + '; '}
        {t('{0} the same', count(json.same, 'value'))}
      </p>
      <details>
        <summary>{t('Expected and actual, whole')}</summary>
        <TextDifference expected={expected} actual={actual} />
      </details>
    </>
  );
}

function TextDifference({ expected, actual }: { expected: string; actual: string }) {
  const changes = compare(expected, actual);
  return (
    <dl class="difference">
      <div>
        <dt>{t('expected')}</dt>
        <dd>
          {changes
            .filter((part) => !part.added)
            .map((part, index) => (part.removed ? <mark key={index} class="expected">{part.value}</mark> : <span key={index}>{part.value}</span>))}
        </dd>
      </div>
      <div>
        <dt>{t('actual')}</dt>
        <dd>
          {changes
            .filter((part) => !part.removed)
            .map((part, index) => (part.added ? <mark key={index} class="actual">{part.value}</mark> : <span key={index}>{part.value}</span>))}
        </dd>
      </div>
    </dl>
  );
}

function compare(expected: string, actual: string): ChangeObject<string>[] {
  const long = expected.length + actual.length > LONGEST_DIFF;
  const changes = long
    ? diffLines(expected, actual, { timeout: 500 })
    : diffWordsWithSpace(expected, actual, { timeout: 500 });
  return changes ?? [
    { value: expected, removed: true, added: false, count: 1 },
    { value: actual, removed: false, added: true, count: 1 },
  ];
}
