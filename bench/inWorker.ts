import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { buildSync } from 'esbuild';
import { openBrowser } from '../e2e/browser';

const PAGE = `<!doctype html><script type="module">
  const worker = new Worker('/worker.js');
  worker.onmessage = (e) => { window.answer = e.data; };
  worker.onerror = (e) => { window.answer = { failed: e.message }; };
  fetch('/message.json').then((r) => r.json()).then((m) => worker.postMessage(m));
</script>`;

/** What a script answers to a message as a worker of a fresh Chromium, where it has never run before. */
export async function answeredInWorker<T>(entry: string, message: unknown): Promise<T> {
  const { outputFiles } = buildSync({ entryPoints: [entry], write: false, bundle: true, minify: true, format: 'iife' });
  const files: Record<string, readonly [string, string]> = {
    '/': ['text/html', PAGE],
    '/worker.js': ['text/javascript', outputFiles[0]!.text],
    '/message.json': ['application/json', JSON.stringify(message)],
  };
  const server = createServer(({ url }, response) => {
    const [type, text] = files[url ?? ''] ?? ['text/plain', ''];
    response.setHeader('content-type', type).end(text);
  }).listen(0, '127.0.0.1');
  const browser = await openBrowser();
  try {
    await browser.driver.manage().setTimeouts({ script: 120_000 });
    await browser.driver.get(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`);
    const answer = await browser.driver.executeAsyncScript<T & { failed?: string }>(
      `const done = arguments[arguments.length - 1];
       const look = () => (window.answer ? done(window.answer) : setTimeout(look, 50));
       look();`,
    );
    if (answer.failed) throw new Error(answer.failed);
    return answer;
  } finally {
    await browser.quit();
    server.close();
  }
}
