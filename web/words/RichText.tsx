import { useMutation } from '@tanstack/react-query';
import { createContext, useContext, useMemo, type ComponentProps } from 'react';
import Markdown, { defaultUrlTransform, type Components } from 'react-markdown';
import { Link } from 'react-router';
import remarkBreaks from 'remark-breaks';
import remarkGfm from 'remark-gfm';
import { findChecks, findTicketNumbers, isTooNested, type Check } from '../../core/words';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useRenew } from '../api/queries';
import { ProblemNote } from '../ui/ProblemNote';
import { BOX_INDEX, rehypeBoxes } from './rehypeBoxes';
import { isCall, remarkCalls } from './remarkCalls';
import classes from './RichText.module.css';
import { NamedNumbers, TicketRef } from './TicketRef';
import './wordsWords';

export type RichTextProps = {
  text: string;
  /** Where a ticket that is named in the words opens. */
  base: string;
  /** The words' place, where their checklists may be worked. */
  checks?: { number: number; messageId: string } | undefined;
  /** Shows a picture large. */
  onOpen?: ((fileId: string) => void) | undefined;
};

const keepAddress = (address: string): string =>
  isCall(address) || /^(ticket|file):[\w-]+$/.test(address) ? address : defaultUrlTransform(address);

/** Ticking lines off, one after the other. */
function useTick(text: string, place: RichTextProps['checks']) {
  const renew = useRenew();
  const lines = useMemo(() => findChecks(text), [text]);
  const tick = useMutation({
    mutationFn: ({ index, isDone }: { index: number; isDone: boolean }) =>
      call(api.words.check, {
        params: { number: place!.number, id: place!.messageId },
        body: { index, isDone, text: lines[index]!.text },
      }),
    onSettled: () => renew(place!.number),
  });
  return { lines, tick };
}

type Place = { lines: Check[]; tick: ReturnType<typeof useTick>['tick'] } & Pick<
  RichTextProps,
  'checks' | 'onOpen'
>;
const Here = createContext<Place | null>(null);

function Address({ href = '', children }: ComponentProps<'a'>) {
  if (href.startsWith('ticket:')) return <TicketRef number={Number(href.slice(7))} />;
  if (isCall(href)) return <span className={classes.call}>{children}</span>;
  if (/^\/(?!\/)/.test(href)) return <Link to={href}>{children}</Link>;
  return (
    <a href={href} rel="noreferrer noopener" target="_blank">
      {children}
    </a>
  );
}

function Picture({ src, alt = '' }: ComponentProps<'img'>) {
  const here = useContext(Here)!;
  const id = typeof src === 'string' && src.startsWith('file:') ? src.slice(5) : null;
  // A picture from elsewhere would tell elsewhere who reads here.
  if (id === null) return <>{alt}</>;
  if (!here.onOpen) return <img src={`/api/v1/files/${id}`} alt={alt} className={classes.still} />;
  return (
    <button type="button" className={classes.picture} onClick={() => here.onOpen?.(id)}>
      <img src={`/api/v1/files/${id}`} alt={alt} />
    </button>
  );
}

function Box({ checked, ...rest }: ComponentProps<'input'>) {
  const { lines, tick, checks } = useContext(Here)!;
  const index = Number((rest as Record<string, unknown>)[BOX_INDEX]);
  const isDone = tick.isPending && tick.variables.index === index ? tick.variables.isDone : checked === true;
  return (
    <input
      type="checkbox"
      checked={isDone}
      disabled={!checks}
      aria-label={lines[index]?.text}
      onChange={({ target }) => tick.mutate({ index, isDone: target.checked })}
    />
  );
}

const COMPONENTS: Components = { a: Address, img: Picture, input: Box };

/** Words with formatting: Markdown without HTML; pictures only those that were sent along. */
export default function RichText({ text, base, checks, onOpen }: RichTextProps) {
  const { lines, tick } = useTick(text, checks);
  const named = useMemo(() => ({ numbers: findTicketNumbers(text).slice(0, 50), base }), [text, base]);
  return (
    <Here value={{ lines, tick, checks, onOpen }}>
      <NamedNumbers value={named}>
        <div className={classes.rich} dir="auto">
          {isTooNested(text) ? (
            <bdi style={{ whiteSpace: 'pre-wrap' }}>{text}</bdi>
          ) : (
            <Markdown
              remarkPlugins={[remarkGfm, remarkBreaks, remarkCalls]}
              rehypePlugins={[rehypeBoxes]}
              urlTransform={keepAddress}
              components={COMPONENTS}
            >
              {text}
            </Markdown>
          )}
        </div>
        {tick.error && <ProblemNote error={tick.error} />}
      </NamedNumbers>
    </Here>
  );
}
