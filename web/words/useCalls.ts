import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { insertTextIntoField } from 'text-field-edit';
import type { Mentionable } from '../../contract/words';
import { writeMention } from '../../core/words';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';

const BEGUN = /(?:^|[\s(])@([\p{L}\p{N}.'-]{0,40})$/u;

/** The letters after an @ that stands right before the caret; null: nobody is being called. */
export function findBegun(text: string, caret: number): string | null {
  return BEGUN.exec(text.slice(0, caret))?.[1] ?? null;
}

/** Whom an @ may mean while it is being typed, and putting them in. */
export function useCalls(number: number, readBy: 'requester' | 'team') {
  const { t, local } = useWords();
  const [begun, setBegun] = useState<string | null>(null);
  const { data: choices = [] } = useQuery({
    queryKey: ['mentionable', number, readBy, begun],
    enabled: begun !== null,
    staleTime: 30_000,
    queryFn: ({ signal }) =>
      call(api.words.mentionable, { params: { number }, query: { q: begun ?? '', readBy }, signal }),
  });
  const nameOf = (each: Mentionable): string =>
    each.kind === 'everyone' ? t('words/everyone') : each.kind === 'team' ? local(each.name) : each.name;
  return {
    choices: begun === null ? [] : choices,
    nameOf,
    detailOf: (each: Mentionable): string =>
      each.kind === 'everyone'
        ? t('words/people', { count: each.count })
        : each.kind === 'team'
          ? t('words/wholeTeam')
          : each.title,
    look: (field: HTMLTextAreaElement) =>
      setBegun(
        field.selectionStart === field.selectionEnd ? findBegun(field.value, field.selectionStart) : null,
      ),
    stop: () => setBegun(null),
    put(field: HTMLTextAreaElement, each: Mentionable): void {
      const caret = field.selectionStart;
      field.focus();
      field.setSelectionRange(caret - (begun ?? '').length - 1, caret);
      insertTextIntoField(field, `${writeMention(each, nameOf(each))} `);
      setBegun(null);
    },
  };
}
