import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { StreamLanguage } from '@codemirror/language';
import { type Diagnostic as LintDiagnostic, lintGutter, setDiagnostics } from '@codemirror/lint';
import { EditorState } from '@codemirror/state';
import { EditorView, keymap, lineNumbers } from '@codemirror/view';
import { useEffect, useRef } from 'react';
import type { Diagnostic } from '@/core/circuit';
import styles from './Circuit.module.css';

/** Remarks, dot cards, part names and numbers told apart; nothing more is needed to read a deck. */
const spice = StreamLanguage.define({
  token: (stream) => {
    if (stream.sol() && stream.match(/\*.*/)) return 'comment';
    if (stream.match(/;.*/)) return 'comment';
    if (stream.sol() && stream.match(/\.\w+/)) return 'keyword';
    if (stream.sol() && stream.match(/\w+/)) return 'variableName';
    if (stream.match(/[+-]?\d[\w.+-]*/)) return 'number';
    stream.next();
    return null;
  },
});

interface Props {
  readonly deck: string;
  readonly change: (deck: string) => void;
  readonly diagnostics: readonly Diagnostic[];
}

/** The deck as text, with its remarks at their places. */
export function DeckEditor({ deck, change, diagnostics }: Props) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const changed = useRef(change);
  useEffect(() => {
    changed.current = change;
  }, [change]);

  useEffect(() => {
    if (!host.current) return;
    const editor = new EditorView({
      parent: host.current,
      state: EditorState.create({
        doc: '',
        extensions: [
          lineNumbers(),
          history(),
          lintGutter(),
          spice,
          keymap.of([...defaultKeymap, ...historyKeymap]),
          EditorView.contentAttributes.of({ 'aria-label': 'Deck', spellcheck: 'false' }),
          EditorView.updateListener.of((u) => {
            if (u.docChanged) changed.current(u.state.doc.toString());
          }),
        ],
      }),
    });
    view.current = editor;
    return () => {
      editor.destroy();
      view.current = null;
    };
  }, []);

  useEffect(() => {
    const editor = view.current;
    if (!editor || editor.state.doc.toString() === deck) return;
    editor.dispatch({ changes: { from: 0, to: editor.state.doc.length, insert: deck } });
  }, [deck]);

  useEffect(() => {
    const editor = view.current;
    if (editor)
      editor.dispatch(
        setDiagnostics(
          editor.state,
          diagnostics.flatMap((d) => placed(editor.state, d)),
        ),
      );
  }, [diagnostics]);

  return <div ref={host} className={styles.editor} tabIndex={0} role="region" aria-label="Deck text" />;
}

function placed(state: EditorState, d: Diagnostic): LintDiagnostic[] {
  if (d.line > state.doc.lines) return [];
  const line = state.doc.line(d.line);
  const from = Math.min(line.from + d.column - 1, line.to);
  return [{ from, to: Math.min(line.to, from + Math.max(1, d.length)), severity: d.severity, message: `${d.message}. ${d.remedy}` }];
}
