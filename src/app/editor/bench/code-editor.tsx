import {
  autocompletion,
  completionKeymap,
  type Completion,
  type CompletionContext,
  type CompletionResult,
} from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap, indentWithTab } from '@codemirror/commands';
import { bracketMatching, HighlightStyle, StreamLanguage, syntaxHighlighting } from '@codemirror/language';
import { shader } from '@codemirror/legacy-modes/mode/clike';
import { lintGutter, setDiagnostics, type Diagnostic } from '@codemirror/lint';
import { EditorState } from '@codemirror/state';
import { EditorView, highlightActiveLine, keymap, lineNumbers } from '@codemirror/view';
import { tags } from '@lezer/highlight';
import { useEffect, useRef } from 'react';

export interface CodeFault {
  line: number;
  message: string;
}

/** The wire colours of the app, on code. */
const colours = HighlightStyle.define([
  { tag: tags.comment, color: 'var(--quiet)', fontStyle: 'italic' },
  { tag: tags.keyword, color: 'var(--wire-shape)' },
  { tag: [tags.typeName, tags.standard(tags.typeName)], color: 'var(--wire-image)' },
  { tag: tags.number, color: 'var(--wire-signal)' },
  { tag: [tags.string, tags.meta], color: 'var(--wire-prop)' },
  { tag: [tags.standard(tags.variableName), tags.atom], color: 'var(--wire-image)' },
]);

const looks = EditorView.theme({
  '&': { height: '100%', fontSize: '12px', backgroundColor: 'transparent' },
  '.cm-scroller': { fontFamily: 'var(--font-mono)', lineHeight: '1.5' },
  '.cm-gutters': { backgroundColor: 'transparent', color: 'var(--quiet)', border: 'none' },
  '.cm-activeLine, .cm-activeLineGutter': {
    backgroundColor: 'color-mix(in oklab, var(--color-base-content) 6%, transparent)',
  },
  '.cm-content': { caretColor: 'var(--color-primary)' },
  '.cm-cursor': { borderLeftColor: 'var(--color-primary)' },
  '&.cm-focused': { outline: '1px solid var(--color-primary)' },
  '.cm-selectionBackground, &.cm-focused .cm-selectionBackground': {
    backgroundColor: 'color-mix(in oklab, var(--color-primary) 30%, transparent) !important',
  },
  '.cm-tooltip': {
    backgroundColor: 'var(--color-base-200)',
    color: 'var(--color-base-content)',
    border: '1px solid var(--edge)',
  },
  '.cm-tooltip-autocomplete ul li[aria-selected]': {
    backgroundColor: 'var(--color-primary)',
    color: 'var(--color-primary-content)',
  },
});

function diagnosticsOf(state: EditorState, faults: readonly CodeFault[]): Diagnostic[] {
  return faults.map(({ line, message }) => {
    const at = state.doc.line(Math.min(Math.max(1, line), state.doc.lines));
    return { from: at.from, to: at.to, severity: 'error', message };
  });
}

/** An editor for GLSL. The text is the performer's own until `value` differs from what it gave last. */
export default function CodeEditor({
  value,
  readOnly = false,
  faults,
  words,
  onChange,
}: {
  value: string;
  readOnly?: boolean;
  faults: readonly CodeFault[];
  words: readonly Completion[];
  onChange?(text: string): void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const latest = useRef({ words, onChange });
  useEffect(() => {
    latest.current = { words, onChange };
  });
  useEffect(() => {
    const complete = (context: CompletionContext): CompletionResult | null => {
      const word = context.matchBefore(/[A-Za-z_]\w*/);
      if (!word && !context.explicit) return null;
      return { from: word?.from ?? context.pos, options: [...latest.current.words], validFor: /^\w*$/ };
    };
    const editor = new EditorView({
      parent: box.current!,
      state: EditorState.create({
        doc: value,
        extensions: [
          lineNumbers(),
          lintGutter(),
          history(),
          bracketMatching(),
          highlightActiveLine(),
          StreamLanguage.define(shader),
          syntaxHighlighting(colours),
          autocompletion({ override: [complete] }),
          keymap.of([...completionKeymap, indentWithTab, ...defaultKeymap, ...historyKeymap]),
          EditorState.readOnly.of(readOnly),
          EditorView.contentAttributes.of({ 'aria-label': readOnly ? 'Shader, for reading' : 'Code' }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) latest.current.onChange?.(update.state.doc.toString());
          }),
          looks,
        ],
      }),
    });
    view.current = editor;
    return () => editor.destroy();
    // The editor lives as long as its place; a text from elsewhere is put in below.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [readOnly]);
  useEffect(() => {
    const editor = view.current!;
    if (editor.state.doc.toString() === value) return;
    editor.dispatch({ changes: { from: 0, to: editor.state.doc.length, insert: value } });
  }, [value]);
  useEffect(() => {
    const editor = view.current!;
    editor.dispatch(setDiagnostics(editor.state, diagnosticsOf(editor.state, faults)));
  }, [faults, value]);
  return <div ref={box} className="h-full min-h-0 grow overflow-hidden" data-testid="code" />;
}
