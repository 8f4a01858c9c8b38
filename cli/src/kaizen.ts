import { writeSync } from 'node:fs';
import { main } from './main';

/** Writes all of a text to a file descriptor, also to a slow pipe; ends quietly when the reader has gone. */
function writeAll(descriptor: number, text: string): void {
  const bytes = Buffer.from(text);
  for (let at = 0; at < bytes.length;) {
    try {
      at += writeSync(descriptor, bytes, at);
    } catch (error) {
      const { code } = error as NodeJS.ErrnoException;
      if (code === 'EPIPE') process.exit(0);
      if (code !== 'EAGAIN') throw error;
    }
  }
}

let waiting = '';
function flush(): void {
  writeAll(1, waiting);
  waiting = '';
}

process.exitCode = main(process.argv.slice(2), {
  out: (text) => {
    waiting += text;
    if (waiting.length > 65536) flush();
  },
  err: (text) => writeAll(2, text),
});
flush();
