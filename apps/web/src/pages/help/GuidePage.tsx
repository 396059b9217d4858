import Markdown, { type Components } from 'react-markdown';
import { Link, Navigate, useParams } from 'react-router';
import { COMMANDS, type CommandName, keysOf } from '../../editor/commands/table';
import { Key } from '../../ui/Keys';
import { GUIDE } from './guide';
import { HelpFrame } from './HelpFrame';
import { MovingPicture } from './MovingPicture';

const TEXTS = import.meta.glob<string>('../../../../../docs/guide/*.md', {
  query: '?raw',
  import: 'default',
  eager: true,
});
const PICTURES = import.meta.glob<string>('../../../../../docs/guide/pictures/*.webm', {
  query: '?url',
  import: 'default',
  eager: true,
});
const at = <T,>(files: Readonly<Record<string, T>>, path: string): T | undefined =>
  files[`../../../../../docs/guide/${path}`];

/** A command by its name in the table: what it is called, or its keys alone where these are what is said. */
const CommandLink = ({ name, said }: { name: CommandName; said: string }) => {
  const command = COMMANDS[name];
  const keys = keysOf(command);
  if (said === keys) return <Key>{keys}</Key>;
  return (
    <span title={`${command.label}${keys ? ` (${keys})` : ''}: find it by Ctrl+K`}>
      {said}
      {keys && (
        <>
          {' '}
          <Key>{keys}</Key>
        </>
      )}
    </span>
  );
};

const PARTS: Components = {
  // The frame has it.
  h1: () => null,
  h2: ({ children }) => <h2 className="text-lg font-semibold">{children}</h2>,
  code: ({ children }) => <Key>{String(children)}</Key>,
  img: ({ src, alt = '' }) => <MovingPicture src={at(PICTURES, String(src)) ?? ''} about={alt} />,
  a: ({ href = '', children }) => {
    const [kind, name] = href.split(':');
    if (kind === 'command') return <CommandLink name={name as CommandName} said={String(children)} />;
    return (
      <Link to={`/help/${href.replace(/\.md$/, '')}`} className="text-sky underline">
        {children}
      </Link>
    );
  },
  // A picture stands by itself.
  p: ({ node, children }) =>
    node?.children.length === 1 && (node.children[0] as { tagName?: string }).tagName === 'img' ? (
      <>{children}</>
    ) : (
      <p>{children}</p>
    ),
};

/** A page of the guide; the first one where none is named. */
export const GuidePage = () => {
  const { page = GUIDE[0]?.slug } = useParams();
  const index = GUIDE.findIndex(({ slug }) => slug === page);
  const shown = GUIDE[index];
  if (!shown) return <Navigate to="/help" replace />;
  const next = GUIDE[index + 1];
  return (
    <HelpFrame title={shown.title}>
      <Markdown components={PARTS} urlTransform={(url) => url}>
        {at(TEXTS, `${shown.slug}.md`) ?? ''}
      </Markdown>
      {next && (
        <p className="border-t border-line pt-3">
          Next:{' '}
          <Link to={`/help/${next.slug}`} className="text-sky underline">
            {next.title}
          </Link>
        </p>
      )}
    </HelpFrame>
  );
};
