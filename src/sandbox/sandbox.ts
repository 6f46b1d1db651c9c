import '../core/allEdits';
import moduleLoader from '@jitl/quickjs-wasmfile-release-sync/emscripten-module';
import { QuickJSFFI } from '@jitl/quickjs-wasmfile-release-sync/ffi';
import {
  DefaultIntrinsics,
  newQuickJSWASMModuleFromVariant,
  newVariant,
  type QuickJSContext,
  type QuickJSHandle,
  type QuickJSSyncVariant,
  type QuickJSWASMModule,
} from 'quickjs-emscripten-core';
import { registeredEdits } from '../core/project/edit';
import { answered, OnlyAsked } from '../core/scripting/border';
import { preludeFor } from '../core/scripting/prelude';
import type { Session } from '../core/scripting/session';

/** How long and in how much memory a script may run. */
export type Limits = { readonly seconds: number; readonly megabytes: number };
export const USUAL_LIMITS: Limits = { seconds: 20, megabytes: 256 };

/** What became of a run: it came to its end, or why it did not, and in which line. */
export type Ended = { readonly ok: true } | { readonly ok: false; readonly reason: string; readonly line?: number };

/** An interpreter: JavaScript compiled to WebAssembly, which can reach nothing of the page or of Node. One runs one script. */
export type Interpreter = QuickJSWASMModule;

const variant: QuickJSSyncVariant = {
  type: 'sync',
  importFFI: async () => QuickJSFFI,
  importModuleLoader: async () => moduleLoader,
};

/** Starts an interpreter; `wasm` is where its bytes are, where they are not found beside it. */
export const startInterpreter = (wasm?: string): Promise<Interpreter> =>
  newQuickJSWASMModuleFromVariant(wasm === undefined ? variant : newVariant(variant, { wasmLocation: wasm }));

const FILE = 'script.js';
const STACK = 256 * 1024;

/**
 * Runs a script over a session. It sees the objects of the border and nothing else: no clock, no network, no storage, no
 * memory but its own. What it changed and reported is in the session; nothing of that is to be used where it did not come to its end.
 */
export function runScript(
  interpreter: Interpreter,
  source: string,
  session: Session,
  { seconds, megabytes }: Limits = USUAL_LIMITS,
): Ended {
  const runtime = interpreter.newRuntime({ memoryLimitBytes: megabytes * 2 ** 20, maxStackSizeBytes: STACK });
  // The script has its time to itself: what stands before it does not count.
  let until = Number.POSITIVE_INFINITY;
  let late = false;
  runtime.setInterruptHandler(() => {
    late ||= performance.now() > until;
    return late;
  });
  const context = runtime.newContext({ intrinsics: { ...DefaultIntrinsics, Date: false, Eval: true } });
  let onlyAsked = false;
  try {
    const answer = context.newFunction('answer', (message) => {
      try {
        return context.newString(answered(session, context.getString(message)));
      } catch (error) {
        // The end of what was asked for: the script is not to catch it.
        onlyAsked = error instanceof OnlyAsked;
        late = true;
        return context.newError('The script was ended.');
      }
    });
    context.setProp(context.global, '__answer', answer);
    answer.dispose();
    const prelude = context.evalCode(
      preludeFor([...registeredEdits().keys()], session.terms.chosen, session.terms.masters),
      'border.js',
    );
    if (prelude.error) throw new Error(String(context.dump(prelude.error).message));
    prelude.value.dispose();
    until = performance.now() + seconds * 1000;
    const result = context.evalCode(source, FILE, { strict: true });
    if (onlyAsked) return { ok: true };
    if (!result.error) return { ok: true };
    return faultOf(context, result.error, late ? seconds : undefined, megabytes);
  } catch (error) {
    // The stack of what the interpreter runs in ended before its own.
    if (error instanceof RangeError) return { ok: false, reason: TOO_DEEP };
    throw error;
  }
}

const TOO_DEEP = 'The script calls itself too many times.';

/** What was thrown, as a sentence with its line. */
function faultOf(context: QuickJSContext, error: QuickJSHandle, late: number | undefined, megabytes: number): Ended {
  if (late !== undefined) return { ok: false, reason: `The script ran longer than ${late} seconds and was stopped.` };
  const told = context.dump(error) as { name?: string; message?: string; stack?: string } | string | undefined;
  if (typeof told !== 'object' || told === null)
    return { ok: false, reason: `The script threw ${String(told).slice(0, 400)}.` };
  const line = lineIn(told.stack);
  const at = line === undefined ? {} : { line };
  const message = String(told.message ?? '').slice(0, 2000);
  if (/out of memory/.test(message))
    return { ok: false, reason: `The script needs more than ${megabytes} megabytes of memory.`, ...at };
  if (/stack overflow|call stack/i.test(message)) return { ok: false, reason: TOO_DEEP, ...at };
  const kind = told.name === 'Refused' || told.name === 'Error' || !told.name ? '' : `${wordsOf(told.name)}: `;
  return { ok: false, reason: `${kind}${message}`, ...at };
}

const wordsOf = (name: string): string =>
  name === 'SyntaxError' ? 'It cannot be read' : name === 'ReferenceError' ? 'It names what there is not' : name;

/** The line of the script that is named first in a stack. */
function lineIn(stack: string | undefined): number | undefined {
  const found = /script\.js:(\d+)/.exec(stack ?? '');
  return found ? Number(found[1]) : undefined;
}

/** What cannot be read in a script, before it is run; undefined where all of it can. */
export function syntaxFault(interpreter: Interpreter, source: string): Extract<Ended, { ok: false }> | undefined {
  const context = interpreter.newContext();
  const result = context.evalCode(source, FILE, { strict: true, compileOnly: true });
  const ended = result.error ? faultOf(context, result.error, undefined, 0) : undefined;
  (result.error ?? result.value).dispose();
  context.dispose();
  return ended?.ok === false ? ended : undefined;
}
