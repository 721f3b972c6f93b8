import { addressOf } from '@crow/contract/client';
import { DocumentSummary } from '@crow/contract/documents';
import { endpoints } from '@crow/contract/endpoints';

export const DOCUMENT_MEDIA_TYPE = 'application/x-crow-document';

/**
 * Lets documents be dragged: onto folders here, and, one by itself, out of the window as its PDF, where the browser can do that.
 * @param dragged all that go together
 */
export function takeAlong(data: DataTransfer, document: DocumentSummary, dragged: readonly string[]): void {
  data.setData(DOCUMENT_MEDIA_TYPE, dragged.join(' '));
  if (dragged.length > 1 || !document.bytes) return;
  const address = new URL(
    addressOf(endpoints.documentPdf, { params: { id: document.id }, query: {} }),
    window.location.href,
  ).href;
  // A colon divides what the browser is told, and no file's name here has one.
  data.setData('DownloadURL', `application/pdf:${document.name}.pdf:${address}`);
  data.setData('text/uri-list', address);
}
