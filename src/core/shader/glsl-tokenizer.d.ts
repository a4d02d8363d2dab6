declare module 'glsl-tokenizer/string' {
  export interface GlslToken {
    type:
      | 'block-comment'
      | 'line-comment'
      | 'preprocessor'
      | 'operator'
      | 'integer'
      | 'float'
      | 'ident'
      | 'builtin'
      | 'keyword'
      | 'whitespace'
      | 'eof';
    data: string;
    /** First character, counted from 0; lines are counted from 1. */
    position: number;
    line: number;
  }
  export default function tokenize(text: string, options?: { version?: '100' | '300 es' }): GlslToken[];
}
