import type { Remote } from 'comlink';
import { typingWorker } from '../../../workers/clients';
import type { TypingService } from '../../../workers/typing';

let running: Remote<TypingService> | undefined;

/** The check of scripts by types; started when it is first asked for, and anew where it has died. */
function typing(): Remote<TypingService> {
  running ??= typingWorker(() => {
    running = undefined;
  }).service;
  return running;
}

/** Asks the check; nothing where it has died over the question: a script is written and run without it as well. */
export async function askTyping<T>(ask: (service: Remote<TypingService>) => Promise<T>): Promise<T | undefined> {
  try {
    return await ask(typing());
  } catch {
    return undefined;
  }
}
