import { useQuery } from '@tanstack/react-query';
import { createContext, useContext } from 'react';
import { Link } from 'react-router';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';

/** The numbers that some words name, so that they are asked for together. */
export const NamedNumbers = createContext<{ numbers: number[]; base: string }>({ numbers: [], base: '' });

/** A ticket by its number, with what it is: its title and state, for those who may see it. */
export function TicketRef({ number }: { number: number }) {
  const { t } = useWords();
  const { numbers, base } = useContext(NamedNumbers);
  const { data = [] } = useQuery({
    queryKey: ['named', numbers],
    staleTime: 30_000,
    queryFn: () => call(api.words.named, { query: { numbers: numbers.join(',') } }),
  });
  const named = data.find((each) => each.number === number);
  if (!named) return <>#{number}</>;
  return (
    <Link to={`${base}/${number}`}>
      #{number} <bdi>{named.title}</bdi> ({t(`states/${named.state}`).toLowerCase()})
    </Link>
  );
}
