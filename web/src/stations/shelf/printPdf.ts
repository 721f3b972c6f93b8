/** How long a page may take that is printed until it is taken away again. */
const KEPT_MS = 600_000;

/** Has the browser print a PDF, with its own dialog; a browser that prints none from a page opens it instead. */
export function printPdf(address: string): void {
  const frame = document.createElement('iframe');
  frame.style.cssText = 'position:fixed;width:0;height:0;border:0';
  frame.title = 'What is printed';
  frame.onload = () => {
    try {
      frame.contentWindow!.focus();
      frame.contentWindow!.print();
    } catch {
      window.open(address, '_blank', 'noopener');
    }
  };
  frame.src = address;
  document.body.append(frame);
  setTimeout(() => frame.remove(), KEPT_MS);
}
