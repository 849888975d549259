/** What a server under test writes on standard error: nothing, unless the test provokes it. */
import type { ChildProcess } from 'node:child_process';

/** Of the database of the test before, which is dropped while the server goes on. */
const DROPPED = /57P01|3D000|ECONNREFUSED|terminating connection|does not exist/;

export class ServerErrors {
  private records: string[] = [];
  private rest = '';
  private expected: RegExp[] = [];

  listenTo(server: ChildProcess): void {
    server.stderr?.setEncoding('utf8').on('data', (text: string) => {
      const lines = (this.rest + text).split('\n');
      this.rest = lines.pop() ?? '';
      for (const line of lines) this.hear(line);
    });
  }

  /** Each entry of the journal, and each message of the framework with the lines that belong to it, is one record. */
  private hear(line: string): void {
    if (line.trim() === '') return;
    const begins = /^\s*(\{"level"|⨯)/.test(line) || this.records.length === 0;
    if (begins) this.records.push(line);
    else this.records.push(`${this.records.pop()}\n${line}`);
  }

  /** The test provokes errors that say so. */
  expect(pattern: RegExp): void {
    this.expected.push(pattern);
  }

  /** What was written that nobody expected; begins anew. */
  take(): readonly string[] {
    const wrong = this.records.filter((record) => !this.expected.some((pattern) => pattern.test(record)));
    this.records = [];
    this.expected = [];
    return wrong;
  }

  /** Between two tests: what the dropped database causes goes by, anything else is kept for the next. */
  forgetDropped(): void {
    this.records = this.records.filter((record) => !DROPPED.test(record));
  }
}
