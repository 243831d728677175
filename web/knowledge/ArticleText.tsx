import { lazy, Suspense } from 'react';

const RichText = lazy(() => import('../words/RichText'));

/** What an article says. */
export function ArticleText({ body, lang }: { body: string; lang?: string }) {
  return (
    <Suspense fallback={<div style={{ whiteSpace: 'pre-wrap' }}>{body}</div>}>
      <div lang={lang}>
        <RichText text={body} base="/ask/tickets" />
      </div>
    </Suspense>
  );
}
