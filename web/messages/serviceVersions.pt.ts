import type { ServiceVersionsWords } from './serviceVersions.en';

/** As palavras das versões de um serviço. */
export const serviceVersions: ServiceVersionsWords = {
  title: 'As versões',
  now: 'Versão {{version}}, a que se pede agora',
  former: 'Versão {{version}}',
  kept_one: '{{count}} pedido aberto mantém-na',
  kept_other: '{{count}} pedidos abertos mantêm-na',
  changed: 'Mudou: {{parts}}',
  take: 'Voltar a escrevê-lo como na versão {{version}}',
};
