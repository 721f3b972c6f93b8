import { Readable } from 'node:stream';
import { FastifyReply } from 'fastify';
import { Context } from '../context';
import { readBlob, StoredBlob } from '../blobs';

/** How a file is called when it is saved (RFC 6266). */
function disposition(how: 'attachment' | 'inline', fileName: string): string {
  const encoded = encodeURIComponent(fileName).replace(/['()*]/g, (c) => `%${c.charCodeAt(0).toString(16)}`);
  return `${how}; filename*=UTF-8''${encoded}`;
}

/** Has what is sent be saved as a file of this name. */
export function asFile(reply: FastifyReply, fileName: string, mediaType: string): FastifyReply {
  return reply.type(mediaType).header('content-disposition', disposition('attachment', fileName));
}

/** Streams a blob; parts of it when the browser asks for a range (RFC 9110). */
export function sendBlob(
  { database }: Pick<Context, 'database'>,
  reply: FastifyReply,
  blob: StoredBlob,
  { mediaType, fileName, download }: { mediaType: string; fileName: string; download: boolean },
): FastifyReply {
  const range = /^bytes=(\d+)-(\d*)$/.exec(reply.request.headers.range ?? '');
  const from = range ? Number(range[1]) : 0;
  const to = range?.[2] ? Math.min(Number(range[2]), blob.size - 1) : blob.size - 1;
  void reply
    .type(mediaType)
    .header('etag', `"${blob.sha256}"`)
    .header('accept-ranges', 'bytes')
    .header('content-disposition', disposition(download ? 'attachment' : 'inline', fileName))
    .header('cache-control', 'private, no-cache');
  if (range && from > to) return reply.code(416).header('content-range', `bytes */${blob.size}`).send();
  if (range) void reply.code(206).header('content-range', `bytes ${from}-${to}/${blob.size}`);
  return reply.header('content-length', to - from + 1).send(Readable.from(readBlob(database, blob.id, from, to)));
}
