import { lazy, Suspense, type ReactNode } from 'react';

const load = () => import('../words/RichText');
const RichText = lazy(load);

/** Has the form of texts fetched before one is shown. */
export const fetchTextForm = (): void => void load();

type Props = {
  body: string;
  lang?: string;
  /** What stands below the text: it comes with the text in its form, since buttons must not move under a finger. */
  children?: ReactNode;
};

/** What an article says. */
export function ArticleText({ body, lang, children }: Props) {
  return (
    <Suspense fallback={<div style={{ whiteSpace: 'pre-wrap' }}>{body}</div>}>
      <div lang={lang}>
        <RichText text={body} base="/ask/tickets" />
      </div>
      {children}
    </Suspense>
  );
}
