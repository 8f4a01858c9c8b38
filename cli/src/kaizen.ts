import { readFileSync, writeSync } from 'node:fs';
import { main } from './main';

const STDIN = 0;
const STDOUT = 1;
const STDERR = 2;

/** Writes all of it to a file descriptor, also to a slow pipe; ends quietly when the reader has gone, with one line when it is full. */
function writeAll(descriptor: number, bytes: Uint8Array): void {
  for (let at = 0; at < bytes.length;) {
    try {
      at += writeSync(descriptor, bytes, at);
    } catch (error) {
      const { code, message } = error as NodeJS.ErrnoException;
      if (code === 'EPIPE') process.exit(0);
      if (code === 'EAGAIN') continue;
      if (descriptor === STDOUT)
        writeAll(
          STDERR,
          Buffer.from(`kaizen: standard output could not be written (${message}); not all of it is there\n`),
        );
      process.exit(1);
    }
  }
}

let waiting = '';
function flush(): void {
  writeAll(STDOUT, Buffer.from(waiting));
  waiting = '';
}

process.exitCode = await main(process.argv.slice(2), {
  out: (text) => {
    waiting += text;
    if (waiting.length > 65536) flush();
  },
  outBytes: (bytes) => {
    flush();
    writeAll(STDOUT, bytes);
  },
  err: (text) => writeAll(STDERR, Buffer.from(text)),
  input: () => readFileSync(STDIN),
});
flush();
