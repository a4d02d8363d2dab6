import { Command as Menu } from 'cmdk';
import { Footprints, Keyboard, Newspaper, X } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Kind } from '../../core/kind/kind';
import { catalogue } from '../../nodes/catalogue';
import { patchActions } from '../actions/patch-actions';
import { placeExample } from '../actions/clipboard';
import { sceneAtHand } from '../commands/at-hand';
import { commandList } from '../commands/command-list-store';
import type { Command } from '../commands/command';
import { applies, commands } from '../commands/registry';
import { searchCommands } from '../commands/search-commands';
import { closeHelp, helpSession } from '../data/help-session';
import { goToStep } from '../data/first-steps';
import { kindAnywhere, libraryKinds, libraryStore, loadLibrary } from '../data/module-library';
import { searchKinds } from '../editor/add-search';
import KindHelp from '../editor/kind-help';
import { searchWords } from '../parts/word-search';
import { helpSections } from './pages';
import SectionText from './section-text';
import type { Section } from './sections';

/** What is listed of each sort at most while something is searched. */
const mostFound = 10;

interface Item {
  /** Section id, "node " or "command " with an id. */
  id: string;
  label: string;
  note?: string;
  depth?: number;
}
interface Group {
  heading: string;
  items: readonly Item[];
}

/** Sections that hold nothing but others are no place to go to. */
const readable = helpSections.filter(({ text }) => text !== '');
const pages = [...new Set(readable.map(({ page }) => page))];
const titleOf = (page: string): string => helpSections.find((section) => section.id === page)?.title ?? page;

const contents: readonly Group[] = pages
  .filter((page) => page !== 'news')
  .map((page) => ({
    heading: titleOf(page),
    items: readable
      .filter((section) => section.page === page && section.depth <= 2)
      .map(({ id, title, depth }) => ({ id, label: depth === 1 ? 'To begin with' : title })),
  }));

const ofSection = ({ id, title, page }: Section): Item => ({ id, label: title, note: titleOf(page) });
const ofKind = (kind: Kind): Item => ({ id: `node ${kind.id}`, label: kind.label, note: kind.summary });
const ofCommand = (command: Command): Item => ({
  id: `command ${command.id}`,
  label: command.label,
  note: command.keys?.[0] ?? command.help,
});

function found(text: string, kinds: readonly Kind[]): Group[] {
  const sections = searchWords(readable, text, (section) => ({
    name: section.title,
    words: [],
    summary: section.text,
  }));
  return [
    { heading: 'Nodes', items: searchKinds(kinds, text).slice(0, mostFound).map(ofKind) },
    { heading: 'Guide', items: sections.slice(0, mostFound).map(ofSection) },
    { heading: 'Commands', items: searchCommands(text).slice(0, mostFound).map(ofCommand) },
  ].filter(({ items }) => items.length > 0);
}

function CommandHelp({ command }: { command: Command }) {
  return (
    <section className="flex flex-col items-start gap-3 p-5">
      <h2 className="text-xl font-semibold">{command.label}</h2>
      <p>{command.help}.</p>
      {command.keys?.map((keys) => (
        <kbd key={keys} className="figures rounded border edge px-2 py-0.5">
          {keys}
        </kbd>
      ))}
      <button
        type="button"
        className="btn btn-sm btn-primary"
        disabled={!applies(command)}
        onClick={() => {
          closeHelp();
          command.run();
        }}
      >
        Run it
      </button>
      {!applies(command) && <p className="quiet">It does not apply now.</p>}
    </section>
  );
}

function Shown({ id, onGo }: { id: string; onGo(id: string): void }) {
  const [sort, of] = id.split(' ');
  if (sort === 'node') {
    const kind = kindAnywhere(of);
    const scene = sceneAtHand();
    return (
      kind && (
        <KindHelp
          key={kind.id}
          kind={kind}
          onExample={
            scene && patchActions.current
              ? (example, packs) => {
                  closeHelp();
                  placeExample(scene, example, patchActions.current!.middle(), packs);
                }
              : undefined
          }
        />
      )
    );
  }
  if (sort === 'command') {
    const command = commands.find((one) => one.id === of);
    return command && <CommandHelp key={of} command={command} />;
  }
  const section = helpSections.find((one) => one.id === id);
  return section && <SectionText section={section} onGo={onGo} />;
}

function Help() {
  const [text, setText] = useState('');
  const [at, setAt] = useState(() => helpSession.getState().at ?? 'guide');
  const page = useRef<HTMLDivElement>(null);
  const library = libraryStore();
  useEffect(() => void loadLibrary(), []);
  const kinds = useMemo(
    () => [...catalogue.values(), ...libraryKinds(library)].filter(({ end }) => end === undefined),
    [library],
  );
  const groups = useMemo(() => (text.trim() ? found(text, kinds) : contents), [text, kinds]);
  // Newer browsers answer with a promise, which is no way to end an effect.
  useEffect(() => void page.current?.scrollTo(0, 0), [at]);
  const type = (next: string): void => {
    setText(next);
    const first = next.trim() ? found(next, kinds)[0]?.items[0] : undefined;
    if (first) setAt(first.id);
  };
  return (
    <Menu
      label="Help"
      shouldFilter={false}
      value={at}
      onValueChange={setAt}
      className="modal-box flex h-[86vh] w-[64rem] max-w-[94vw] flex-col overflow-hidden border edge bg-base-200 p-0"
    >
      <header className="flex items-center gap-1 border-b edge p-2">
        <Menu.Input
          autoFocus
          value={text}
          onValueChange={type}
          placeholder="Search help: what do you want to do?"
          className="h-8 grow bg-transparent px-2 text-base outline-none"
        />
        <button
          type="button"
          className="tool"
          onClick={() => {
            closeHelp();
            goToStep(0);
          }}
        >
          <Footprints size={14} /> First steps
        </button>
        <button type="button" className="tool" onClick={() => setAt('news')}>
          <Newspaper size={14} /> What&rsquo;s new
        </button>
        <button
          type="button"
          className="tool"
          onClick={() => {
            closeHelp();
            commandList.setState({ open: true });
          }}
        >
          <Keyboard size={14} /> Keys
        </button>
        <button type="button" className="tool" aria-label="Close" onClick={closeHelp}>
          <X size={15} />
        </button>
      </header>
      <div className="flex min-h-0 grow">
        <Menu.List className="w-72 shrink-0 overflow-y-auto border-r edge p-2">
          {groups.length === 0 && (
            <p className="quiet p-2">Nothing found. Try a word of what you want to see, such as “copies”.</p>
          )}
          {groups.map(({ heading, items }) => (
            <Menu.Group
              key={heading}
              heading={heading}
              className="mb-1 [&>[cmdk-group-heading]]:px-2 [&>[cmdk-group-heading]]:py-1 [&>[cmdk-group-heading]]:text-2xs [&>[cmdk-group-heading]]:font-semibold [&>[cmdk-group-heading]]:text-primary"
            >
              {items.map(({ id, label, note }) => (
                <Menu.Item
                  key={id}
                  value={id}
                  data-help={id}
                  onSelect={() => setAt(id)}
                  className="cursor-pointer rounded px-2 py-1 data-[selected=true]:bg-base-300"
                >
                  <span className="block truncate">{label}</span>
                  {note && <span className="quiet block truncate text-2xs">{note}</span>}
                </Menu.Item>
              ))}
            </Menu.Group>
          ))}
        </Menu.List>
        <div
          ref={page}
          className="min-w-0 grow overflow-y-auto"
          tabIndex={0}
          role="region"
          aria-label="Help page"
          data-testid="help-page"
        >
          <Shown id={at} onGo={setAt} />
        </div>
      </div>
    </Menu>
  );
}

/** Help: the guide, every node with a scene that runs, every command, what is new; all found by one search. */
export default function HelpPanel() {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => dialog.current?.showModal(), []);
  return (
    <dialog
      ref={dialog}
      className="modal"
      aria-label="Help"
      data-testid="help"
      onClose={closeHelp}
      onClick={(event) => event.target === dialog.current && closeHelp()}
    >
      <Help />
    </dialog>
  );
}
