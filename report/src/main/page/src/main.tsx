import './style.css';
import { render } from 'preact';
import { App } from './app';
import { earlierFiles, exchangeFiles, minutesFiles, run, texts } from './store';
import type { Exchange, ExchangeRow, Minutes, PaperText, RunData } from './types';

declare global {
  interface Window {
    /** What the script files in data/ call. */
    verbale: {
      run(data: RunData): void;
      minutes(id: string, minutes: Minutes[]): void;
      exchanges(id: string, rows: ExchangeRow[]): void;
      earlier(id: string, exchanges: Exchange[][]): void;
      text(id: string, text: PaperText): void;
    };
  }
}

window.verbale = {
  run: (data) => (run.value = data),
  minutes: (id, minutes) => minutesFiles.arrived(id, minutes),
  exchanges: (id, rows) => exchangeFiles.arrived(id, rows),
  earlier: (id, exchanges) => earlierFiles.arrived(id, exchanges),
  text: (id, text) => texts.arrived(id, text),
};

addEventListener('DOMContentLoaded', () => render(<App />, document.getElementById('page')!));
