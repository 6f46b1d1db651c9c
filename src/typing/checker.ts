import ts from '@ts-morph/common/dist/typescript.js';

/** What does not fit in a script: where, in characters of the text, and why. */
export type TypeFault = {
  readonly from: number;
  readonly to: number;
  /** From 1. */
  readonly line: number;
  readonly reason: string;
};

/** A member of what stands before a point. */
export type Member = { readonly name: string; readonly call: boolean };

/** How a thing is written, with its type, and what it does. */
export type About = { readonly form: string; readonly does: string };

/** How a call is written whose arguments are being typed, and which of them is. */
export type CallForm = About & { readonly argument: string | undefined };

const SCRIPT = '/script.js';
const DECLARATIONS = '/wendril.d.ts';
const OPTIONS: ts.CompilerOptions = {
  allowJs: true,
  checkJs: true,
  noEmit: true,
  strict: false,
  noImplicitAny: false,
  target: ts.ScriptTarget.ES2023,
  module: ts.ModuleKind.ESNext,
  // A script has names of its own: it may call something `font` or `chosen` anew.
  moduleDetection: ts.ModuleDetectionKind.Force,
  lib: ['lib.es2023.d.ts'],
  types: [],
};
/** Longer texts than these (characters) are not looked at: they are read whole at every change. */
const MOST = 400_000;

/**
 * Looks at scripts by types: what they name, set and call against the declarations of all that a script can name. `libraries`
 * are the declarations of the language itself, by file name.
 */
export class Checker {
  private text = '';
  private version = 0;
  private readonly service: ts.LanguageService;

  constructor(libraries: Readonly<Record<string, string>>, declarations: string) {
    const fixed = new Map<string, string>([
      ...Object.entries(libraries).map(([name, text]): [string, string] => [`/${name}`, text]),
      [DECLARATIONS, declarations],
    ]);
    const read = (path: string): string | undefined => (path === SCRIPT ? this.text : fixed.get(path));
    const snapshots = new Map<string, ts.IScriptSnapshot>();
    this.service = ts.createLanguageService(
      {
        getCompilationSettings: () => OPTIONS,
        getScriptFileNames: () => [SCRIPT, DECLARATIONS],
        getScriptVersion: (path) => (path === SCRIPT ? String(this.version) : '0'),
        getScriptSnapshot: (path) => {
          const text = read(path);
          if (text === undefined) return undefined;
          if (path === SCRIPT) return ts.ScriptSnapshot.fromString(text);
          let kept = snapshots.get(path);
          if (!kept) {
            kept = ts.ScriptSnapshot.fromString(text);
            snapshots.set(path, kept);
          }
          return kept;
        },
        getCurrentDirectory: () => '/',
        getDefaultLibFileName: () => '/lib.es2023.d.ts',
        fileExists: (path) => read(path) !== undefined,
        readFile: read,
        directoryExists: () => true,
        getDirectories: () => [],
      },
      ts.createDocumentRegistry(),
    );
  }

  /** What does not fit in a text, in its order; nothing where it cannot be read at all. */
  faults(text: string): TypeFault[] {
    if (!this.take(text) || this.service.getSyntacticDiagnostics(SCRIPT).length > 0) return [];
    return this.service.getSemanticDiagnostics(SCRIPT).flatMap((d) => {
      if (d.start === undefined || d.category !== ts.DiagnosticCategory.Error) return [];
      const line = (d.file?.getLineAndCharacterOfPosition(d.start).line ?? 0) + 1;
      return { from: d.start, to: d.start + (d.length ?? 0), line, reason: sentenceOf(d.messageText) };
    });
  }

  /** The members of what stands before a place of a text (in characters); nothing where that is not known. */
  members(text: string, at: number): Member[] {
    if (!this.take(text)) return [];
    const found = this.service.getCompletionsAtPosition(SCRIPT, at, { includeCompletionsWithInsertText: false });
    if (!found?.isMemberCompletion) return [];
    return found.entries.flatMap(({ name, kind }) => {
      // Names that stand somewhere in the text are guesses.
      if (kind === ts.ScriptElementKind.warning || !/^[\p{L}_$][\p{L}\p{N}_$]*$/u.test(name)) return [];
      return { name, call: kind === ts.ScriptElementKind.memberFunctionElement };
    });
  }

  /** What a member that stands to choice at a place of a text is. */
  about(text: string, at: number, name: string): About | undefined {
    if (!this.take(text)) return undefined;
    const found = this.service.getCompletionEntryDetails(SCRIPT, at, name, {}, undefined, {}, undefined);
    return found && told(found.displayParts, found.documentation);
  }

  /** What the name that stands at a place of a text is. */
  named(text: string, at: number): (About & { readonly from: number; readonly to: number }) | undefined {
    if (!this.take(text)) return undefined;
    const found = this.service.getQuickInfoAtPosition(SCRIPT, at);
    if (!found) return undefined;
    const { start, length } = found.textSpan;
    return { ...told(found.displayParts, found.documentation), from: start, to: start + length };
  }

  /** How the call is written whose arguments a place of a text (in characters) is in. */
  callAt(text: string, at: number): CallForm | undefined {
    if (!this.take(text)) return undefined;
    const found = this.service.getSignatureHelpItems(SCRIPT, at, {});
    const item = found?.items[found.selectedItemIndex];
    if (!found || !item) return undefined;
    const words = ts.displayPartsToString;
    const separator = words(item.separatorDisplayParts);
    const parameters = item.parameters.map((p) => words(p.displayParts));
    return {
      form: `${words(item.prefixDisplayParts)}${parameters.join(separator)}${words(item.suffixDisplayParts)}`,
      does: words(item.documentation),
      argument: parameters[found.argumentIndex],
    };
  }

  private take(text: string): boolean {
    if (text.length > MOST) return false;
    if (text !== this.text) {
      this.text = text;
      this.version++;
    }
    return true;
  }
}

const told = (form: ts.SymbolDisplayPart[] | undefined, does: ts.SymbolDisplayPart[] | undefined): About => ({
  form: ts.displayPartsToString(form ?? []).replace(/^\((property|method)\) /, ''),
  does: ts.displayPartsToString(does ?? []),
});

/** A message of the compiler as sentences: its first part says what, the deepest why; what it advises about itself is left out. */
function sentenceOf(message: string | ts.DiagnosticMessageChain): string {
  if (typeof message === 'string') return message.replace(/ Do you need to change your target library\?.*$/, '');
  let deepest = message;
  while (deepest.next?.[0]) deepest = deepest.next[0];
  return deepest === message ? message.messageText : `${message.messageText} ${deepest.messageText}`;
}
