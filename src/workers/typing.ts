import '../core/allEdits';
import { declarationText } from '../core/scripting/declarations';
import { type About, type CallForm, Checker, type Member, type TypeFault } from '../typing/checker';

export type { About, TypeFault } from '../typing/checker';

/** Scripts looked at by types, against all that a script can name. Places are in characters of the text. */
export function typingServiceWith(libraries: Readonly<Record<string, string>>) {
  let made: Checker | undefined;
  const checker = (): Checker => {
    made ??= new Checker(libraries, declarationText());
    return made;
  };
  return {
    faults: (text: string): TypeFault[] => checker().faults(text),
    members: (text: string, at: number): Member[] => checker().members(text, at),
    about: (text: string, at: number, name: string): About | undefined => checker().about(text, at, name),
    named: (text: string, at: number) => checker().named(text, at),
    callAt: (text: string, at: number): CallForm | undefined => checker().callAt(text, at),
  };
}

export type TypingService = ReturnType<typeof typingServiceWith>;
