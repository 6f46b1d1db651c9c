/** The general compiler of TypeScript, as one module that runs in a browser too. */
declare module '@ts-morph/common/dist/typescript.js' {
  import { ts } from '@ts-morph/common/lib/typescript';
  export default ts;
}

/** What the language itself brings, as declarations: filled in when the app is built. */
declare module 'virtual:language-declarations' {
  const files: Readonly<Record<string, string>>;
  export default files;
}
