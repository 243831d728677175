import { isAgent } from '../../../core/rights';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api } from '../../api/endpoints';
import type { Service } from '../../../contract/catalogue';
import type { FileRef } from '../../../contract/files';
import type { Ticket } from '../../../contract/tickets';
import {
  checkAnswers,
  fillIn,
  withFiles,
  TEXT_LIMIT,
  type Answers,
  type AnswerValue,
} from '../../../core/forms';
import { findBadText } from '../../../core/text';
import { call } from '../../api/call';
import { useMe, useRenew } from '../../api/queries';
import { useDraft } from '../../api/useDraft';
import { useWords } from '../../messages/useWords';
import { useProblems } from '../../ui/useProblems';

/** Words of a team's own are read for so long. */
const THANKS_MS = 15_000;

type Draft = {
  title: string;
  answers: Answers;
  files: FileRef[];
  alsoTold: { id: string; name: string }[];
  /** Sent with each try, so that one request is one ticket. */
  key: string;
};

export type Like = Pick<Ticket, 'number' | 'title' | 'answers'>;

/** What was answered before, for questions that are still asked; days and files of then are not of now. */
function takeOver({ form }: Service, { answers }: Like, known: Answers): Answers {
  const before = new Map(answers.map(({ field, value }) => [field.name, value as AnswerValue]));
  const taken = form.fields.flatMap(({ name, kind }) => {
    const value = before.get(name);
    const isOfThen = kind === 'date' || kind === 'dateRange' || kind === 'files';
    return value === undefined || isOfThen ? [] : [[name, value] as const];
  });
  return { ...known, ...Object.fromEntries(taken) };
}

type Problems = Record<string, string>;

/** A service's form being filled in: kept as one types, judged by the server's own rules, sent once. */
export function useServiceForm(
  service: Service,
  {
    title,
    forPerson,
    hangsAt,
    like,
  }: {
    title: string;
    forPerson: string | null;
    /** Where the code hangs by which they came: that counts, wherever else they belong. */
    hangsAt: { site?: string; place?: string };
    /** A request that this one is to be like. */
    like: Like | null;
  },
) {
  const { t, local } = useWords();
  const me = useMe();
  const navigate = useNavigate();
  const renew = useRenew();
  const facts = { ...me.known, ...hangsAt };
  const known = forPerson === null ? fillIn(service.form, facts) : fillIn(service.form, {});
  const empty: Draft = {
    ...{ title: like?.title ?? title, answers: like ? takeOver(service, like, known) : known },
    ...{ files: [], alsoTold: [], key: nanoid() },
  };
  const [draft, setDraft, clearDraft] = useDraft<Draft>(
    `service:${service.id}:${forPerson ?? 'me'}${Object.values(hangsAt)
      .map((value) => `@${value}`)
      .join('')}${like ? `:${like.number}` : ''}`,
    empty,
  );
  const [problems, setProblems] = useState<Problems>({});
  const toProblems = useProblems();

  function judge(): Problems {
    const found: Problems = {};
    const badTitle =
      draft.title.trim() === ''
        ? 'missing'
        : draft.title.length > TEXT_LIMIT
          ? 'tooLong'
          : findBadText(draft.title)
            ? 'badCharacter'
            : null;
    if (badTitle) found.title = t(`fields/${badTitle}`, { limit: TEXT_LIMIT });
    for (const { field, code, limit, words } of checkAnswers(
      service.form,
      withFiles(
        service.form,
        draft.answers,
        draft.files.map(({ id }) => id),
      ),
    ).problems)
      found[field] = words ? local(words) : t(`fields/${code}`, { limit });
    return found;
  }

  // An agent writes down what they are told; a manager asks for one of theirs.
  const isOnPhone = forPerson !== null && isAgent(me);
  const sending = useMutation({
    mutationFn: () =>
      call(api.tickets.create, {
        key: draft.key,
        body: {
          serviceId: service.id,
          title: draft.title.trim(),
          answers: draft.answers,
          fileIds: draft.files.map(({ id }) => id),
          alsoToldIds: draft.alsoTold.map(({ id }) => id),
          via: isOnPhone ? 'phone' : 'portal',
          ...(forPerson !== null && { requesterId: forPerson }),
        },
      }),
    onSuccess: async ({ number }) => {
      clearDraft();
      renew();
      const thanks = service.thanks && local(service.thanks).trim();
      notifications.show({
        ...(thanks && { title: thanks, autoClose: THANKS_MS }),
        message: t('service/sent', { number }),
      });
      await navigate(isOnPhone ? `/desk/everything/${number}` : `/ask/tickets/${number}`);
    },
    onError: (error) => {
      const fields = toProblems(error);
      setProblems(
        Object.fromEntries(
          Object.entries(fields).map(([field, words]) => [field.replace('answers.', ''), words]),
        ),
      );
      // What was refused may be sent again, mended, as a new request.
      if (Object.keys(fields).length > 0) setDraft({ ...draft, key: nanoid() });
    },
  });

  return {
    draft,
    problems,
    sending,
    known,
    change: (changes: Partial<Draft>) => setDraft({ ...draft, ...changes }),
    answer(name: string, value: AnswerValue) {
      setDraft({ ...draft, answers: { ...draft.answers, [name]: value } });
      if (problems[name]) setProblems(({ [name]: _, ...rest }) => rest);
    },
    /** Sends it, or says what is to be mended. @returns the names of the questions to mend */
    send(): string[] {
      const found = judge();
      setProblems(found);
      if (Object.keys(found).length === 0) sending.mutate();
      return Object.keys(found);
    },
    startAfresh() {
      clearDraft();
      setProblems({});
    },
  };
}
