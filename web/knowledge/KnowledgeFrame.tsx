import type { ReactNode } from 'react';
import { NavLink } from 'react-router';
import { useMe } from '../api/queries';
import '../messages/knowledgeWords';
import '../words/wordsWords';
import { useWords } from '../messages/useWords';
import { Lost } from '../ui/Lost';
import workshop from '../workshop/Workshop.module.css';

const SUBJECTS = [
  ['/knowledge', 'articles'],
  ['/knowledge/health', 'health'],
  ['/knowledge/asked', 'asked'],
  ['/knowledge/words', 'otherWords'],
] as const;

/** A page of Knowledge: its subjects in one line above. */
export function KnowledgeFrame({ lead, children }: { lead?: string; children: ReactNode }) {
  const { t } = useWords();
  const me = useMe();
  if (!me.areas.includes('knowledge')) return <Lost />;
  return (
    <div className={workshop.page}>
      <div className={workshop.head}>
        <h1>{t('knowledge/title')}</h1>
        {SUBJECTS.map(([to, name]) => (
          <NavLink key={to} to={to} end>
            {t(`knowledge/${name}`)}
          </NavLink>
        ))}
      </div>
      {lead && <p className={workshop.lead}>{lead}</p>}
      {children}
    </div>
  );
}
