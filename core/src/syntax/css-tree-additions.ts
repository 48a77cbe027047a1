import type {} from 'css-tree';

// What @types/css-tree (made for version 2) does not know yet.
declare module 'css-tree' {
  function tokenize(source: string, onToken: (type: number, start: number, end: number) => void): void;
  const tokenTypes: Readonly<Record<string, number>>;
  interface Lexer {
    /** The property's syntax, or `null` when unknown. */
    getProperty(name: string): object | null;
    /** Syntaxes by the names of properties. */
    readonly properties: Readonly<Record<string, object>>;
  }
}
