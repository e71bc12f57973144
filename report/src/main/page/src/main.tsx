import './style.css';
import { render } from 'preact';
import { App } from './app';
import { page } from './plain';
import { isPacked, packedRun, type Call } from './data/packed';
import { arrivedPieces, arrivedRows, arrivedRun, arrivedTests, baselineFiles, briefFiles, earlierFiles, exchangeFiles, failureTexts, isLost, loadRun, testFiles, texts } from './data/loaded';
import type { Brief, FailureTexts, Marks, ExchangeRow, TestData, AttachmentText, RunData } from './data/types';

declare global {
  interface Window {
    /** What the script files in data/ call. */
    verbale: {
      run(data: Omit<RunData, 'rows'>): void;
      rows(id: string, columns: string): void;
      failures(id: string, texts: FailureTexts): void;
      pieces(id: string, pieces: string[]): void;
      tests(id: string, tests: TestData[]): void;
      exchanges(id: string, rows: ExchangeRow[]): void;
      baseline(id: string, tests: (TestData | null)[]): void;
      text(id: string, text: AttachmentText): void;
      brief(id: string, brief: Brief): void;
      earlier(id: string, marks: Marks[]): void;
    };
  }
}

window.verbale = {
  run: arrivedRun,
  rows: arrivedRows,
  failures: (id, found) => failureTexts.arrived(id, found),
  pieces: arrivedPieces,
  tests: (id, tests) => arrivedTests(testFiles, id, tests),
  exchanges: (id, rows) => exchangeFiles.arrived(id, rows),
  baseline: (id, tests) => arrivedTests(baselineFiles, id, tests),
  text: (id, text) => texts.arrived(id, text),
  earlier: (id, marks) => earlierFiles.arrived(id, marks),
  brief: (id, brief) => briefFiles.arrived(id, brief),
};

render(<App />, page);
if (isPacked) arrive(packedRun());
else loadRun();

function arrive(found: Call | undefined): void {
  if (found) window.verbale.run(found.value as RunData);
  else isLost.value = true;
}
