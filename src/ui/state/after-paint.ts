/** One that is covered may paint nothing for a while, and is not waited for. */
const AT_THE_LATEST_MS = 100;

/** Resolves once the page has painted what was changed just now, or at once where it is not shown: for work that nobody waits to see. */
export function afterPaint(): Promise<void> {
  return new Promise((resolve) => {
    if (document.hidden) {
      setTimeout(resolve, 0);
      return;
    }
    const late = setTimeout(resolve, AT_THE_LATEST_MS);
    requestAnimationFrame(() => {
      const { port1, port2 } = new MessageChannel();
      port1.onmessage = () => {
        clearTimeout(late);
        resolve();
      };
      port2.postMessage(0);
    });
  });
}
