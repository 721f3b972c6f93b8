/** What a document says of itself. */
export interface DocumentMetadata {
  title: string;
  /** When the file was made. */
  created: Date;
  /** The language of its text as BCP 47, such as `de`. */
  language?: string;
  /** Sixteen bytes that tell this file from all others. */
  fileId: Uint8Array;
}

export const PRODUCER = 'Crow Shelf';

/** The XMP packet (ISO 16684-1) for a PDF; `archival` declares PDF/A-2b (ISO 19005-2). */
export function xmpPacket({ title, created }: DocumentMetadata, archival: boolean): string {
  const date = created.toISOString().replace(/\.\d+Z$/, 'Z');
  return `<?xpacket begin="\uFEFF" id="W5M0MpCehiHzreSzNTczkc9d"?>
<x:xmpmeta xmlns:x="adobe:ns:meta/">
<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">
<rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:xmp="http://ns.adobe.com/xap/1.0/" xmlns:pdf="http://ns.adobe.com/pdf/1.3/" xmlns:pdfaid="http://www.aiim.org/pdfa/ns/id/">
<dc:title><rdf:Alt><rdf:li xml:lang="x-default">${escapeXml(title)}</rdf:li></rdf:Alt></dc:title>
<xmp:CreateDate>${date}</xmp:CreateDate>
<xmp:ModifyDate>${date}</xmp:ModifyDate>
<xmp:CreatorTool>${PRODUCER}</xmp:CreatorTool>
<pdf:Producer>${PRODUCER}</pdf:Producer>
${archival ? '<pdfaid:part>2</pdfaid:part>\n<pdfaid:conformance>B</pdfaid:conformance>\n' : ''}</rdf:Description>
</rdf:RDF>
</x:xmpmeta>
<?xpacket end="w"?>`;
}

function escapeXml(text: string): string {
  return text.replace(/[<>&"]/g, (character) => `&#${character.charCodeAt(0)};`);
}
