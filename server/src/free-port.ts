import type { Server } from 'node:http';

const TRIES = 50;

/** Listens on the wanted port of this machine only, or the next free one, and gives the port it got. */
export async function listenOnFreePort(server: Server, wanted: number, host = '127.0.0.1'): Promise<number> {
  for (let port = wanted; port < wanted + TRIES; port++) {
    if (await listens(server, port, host)) return port;
  }
  throw new Error(
    `No port from ${wanted} to ${wanted + TRIES - 1} is free; set PORT to a free one and start again.`,
  );
}

function listens(server: Server, port: number, host: string): Promise<boolean> {
  return new Promise((resolve, reject) => {
    const failed = (error: NodeJS.ErrnoException) => {
      server.off('listening', done);
      if (error.code === 'EADDRINUSE' || error.code === 'EACCES') resolve(false);
      else reject(error);
    };
    const done = () => {
      server.off('error', failed);
      resolve(true);
    };
    server.once('error', failed);
    server.once('listening', done);
    server.listen(port, host);
  });
}
