import { api } from '../../contract';
import { serve, type Routes } from '../http/serve';
import { setCheckOf } from './check';
import { listMentionable } from './mentionable';
import { readNamed } from './named';
import { noteWriting } from './writing';

export const wordsRoutes: Routes = (router, listo) => {
  const { words } = api;
  serve(router, words.mentionable, ({ viewer, params, query }) =>
    listMentionable({ listo, viewer }, params.number, query),
  );
  serve(router, words.named, ({ viewer, query }) => readNamed(listo, viewer, query.numbers));
  serve(router, words.check, ({ viewer, actor, params, body }) =>
    setCheckOf(listo, { viewer, actor, number: params.number, messageId: params.id }, body),
  );
  serve(router, words.writing, ({ viewer, params, body }) =>
    noteWriting({ listo, viewer }, params.number, body.readBy),
  );
};
