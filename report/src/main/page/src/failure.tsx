// Why something failed: what it said, what was expected, where it came from.
import { diffLines, diffWordsWithSpace, type ChangeObject } from 'diff';
import { Slips } from './reader';
import type { Failure, Paper } from './types';

const LONGEST_DIFF = 20_000;
const MOST_PICTURES = 2;

interface Props {
  failure: Failure;
  /** The test's papers: its last screenshots are shown beside it. */
  papers?: Paper[];
}

export function FailureBox({ failure, papers = [] }: Props) {
  const pictures = papers.filter((paper) => paper.kind === 'screenshot' && paper.href).slice(-MOST_PICTURES);
  return (
    <section class={`failure ${pictures.length > 0 ? 'with-pictures' : ''}`} aria-label="Failure">
      <div>
        <Telling failure={failure} />
      </div>
      {pictures.length > 0 && <Slips papers={pictures} all={papers} />}
    </section>
  );
}

function Telling({ failure }: { failure: Failure }) {
  const { expected, actual } = failure;
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
        <summary>Stack trace</summary>
        <pre class="stack">{failure.stack}</pre>
      </details>
    </>
  );
}

function Difference({ expected, actual }: { expected: string; actual: string }) {
  const changes = compare(expected, actual);
  return (
    <dl class="difference">
      <div>
        <dt>expected</dt>
        <dd>
          {changes
            .filter((part) => !part.added)
            .map((part, index) => (part.removed ? <del key={index}>{part.value}</del> : <span key={index}>{part.value}</span>))}
        </dd>
      </div>
      <div>
        <dt>actual</dt>
        <dd>
          {changes
            .filter((part) => !part.removed)
            .map((part, index) => (part.added ? <ins key={index}>{part.value}</ins> : <span key={index}>{part.value}</span>))}
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
