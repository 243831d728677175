import type { LocalText } from '../core/forms';
import type { ProcedureStep } from '../core/procedures';
import type { ProcedureRow } from '../server/procedures/model';

const both = (en: string, pt: string): LocalText => ({ en, pt });
const ASSIGNEE = both('whoever has it', 'quem o tem');
const TERMINAL = both('the terminal lead, on the telephone', 'a chefia do terminal, ao telefone');

function step(id: string, who: LocalText, name: LocalText, instruction: LocalText): ProcedureStep {
  return { id, who, name, instruction };
}

const KIOSK: ProcedureStep[] = [
  step(
    'kiosk-people',
    TERMINAL,
    both('Send the people on', 'Encaminhar as pessoas'),
    both(
      'Ask the terminal lead to send the queue to another kiosk or the counter, and to hang the **out of order** card on this one.',
      'Peça à chefia do terminal que encaminhe a fila para outro quiosque ou para o balcão e pendure neste a placa **avariado**.',
    ),
  ),
  step(
    'kiosk-code',
    ASSIGNEE,
    both('Read what the card reader says', 'Ler o que diz o leitor de cartões'),
    both(
      'The small screen shows a letter and two digits:\n\n| shown | means |\n| --- | --- |\n| E-11 | no line to the bank |\n| E-71 | the reader restarts and never comes back |\n| E-90 | opened by hand: **call Terminal facilities** |',
      'O ecrã pequeno mostra uma letra e dois algarismos:\n\n| mostra | significa |\n| --- | --- |\n| E-11 | sem linha para o banco |\n| E-71 | o leitor reinicia e não volta |\n| E-90 | aberto à mão: **chame as Instalações** |',
    ),
  ),
  step(
    'kiosk-restart',
    ASSIGNEE,
    both('Restart the payment part alone', 'Reiniciar só a parte do pagamento'),
    both(
      'From the Onboard console:\n\n1. choose the kiosk and *Maintenance*;\n2. stop `payment`, wait **40 seconds**, start `payment`;\n3. the reader beeps twice when it is back.\n\nDo not restart the whole kiosk: it then asks for the key, which is at the terminal.',
      'Na consola de bordo:\n\n1. escolha o quiosque e *Manutenção*;\n2. pare `payment`, espere **40 segundos**, inicie `payment`;\n3. o leitor apita duas vezes quando volta.\n\nNão reinicie o quiosque inteiro: pediria a chave, que está no terminal.',
    ),
  ),
  step(
    'kiosk-sale',
    TERMINAL,
    both('Try a sale', 'Experimentar uma venda'),
    both(
      'A child ticket to Quell Harbour, paid by card, then cancelled at the counter. Only then is it done.',
      'Um bilhete de criança para Quell Harbour, pago com cartão e depois anulado ao balcão. Só então está feito.',
    ),
  ),
];

const GATE: ProcedureStep[] = [
  step(
    'gate-open',
    TERMINAL,
    both('Open the gate by hand', 'Abrir a porta à mão'),
    both(
      'Boarding goes on with the list on paper; the gate is opened with the grey key.',
      'O embarque segue com a lista em papel; a porta abre-se com a chave cinzenta.',
    ),
  ),
  step(
    'gate-passes',
    ASSIGNEE,
    both('Find which passes are refused', 'Saber que passes são recusados'),
    both(
      'One pass, all season passes, or everything? All season passes: look whether the season’s list has come (`gates / lists / season`). If it is older than today, load it anew.',
      'Um passe, todos os passes de época ou tudo? Todos os de época: veja se a lista da época chegou (`gates / lists / season`). Se for anterior a hoje, carregue-a de novo.',
    ),
  ),
  step(
    'gate-compare',
    ASSIGNEE,
    both('Compare with another gate', 'Comparar com outra porta'),
    both(
      'Same firmware, same fault: tie the tickets to one cause instead of mending each gate.',
      'Mesmo firmware, mesma falha: ligue os pedidos a uma só causa em vez de reparar cada porta.',
    ),
  ),
];

const CALL: ProcedureStep[] = [
  step(
    'call-who',
    ASSIGNEE,
    both('Who is it, and what stands still?', 'Quem é, e o que está parado?'),
    both(
      'Look at what they own and what is open before asking. A ship that cannot sail is P1 whatever it is.',
      'Veja o que têm e o que está aberto antes de perguntar. Um navio que não pode sair é P1, seja o que for.',
    ),
  ),
  step(
    'call-try',
    ASSIGNEE,
    both('Try what helped before', 'Tentar o que ajudou antes'),
    both(
      '*What happened before* shows how the same was solved. Ten minutes at most.',
      '*O que aconteceu antes* mostra como o mesmo foi resolvido. Dez minutos no máximo.',
    ),
  ),
  step(
    'call-give',
    ASSIGNEE,
    both('Give it on with what you know', 'Passar com o que se sabe'),
    both(
      'Say what was tried, and when the caller can be reached.',
      'Diga o que se tentou e quando se pode falar com quem ligou.',
    ),
  ),
];

const row = (
  id: string,
  teamId: string,
  isFor: Pick<ProcedureRow, 'serviceId' | 'kind'>,
  rest: Pick<ProcedureRow, 'name' | 'overview' | 'steps'>,
): ProcedureRow => ({ id, teamId, ...isFor, ...rest, version: 1 });

/** How the demo's teams do their usual work. */
export function createProcedures(): ProcedureRow[] {
  return [
    row(
      'how-kiosk',
      'onboard',
      { serviceId: 'kiosk', kind: null },
      {
        name: both('A kiosk that does not sell', 'Um quiosque que não vende'),
        overview: both(
          'The terminal keeps the people moving, we bring the kiosk back from here. Somebody drives out only for E-90.',
          'O terminal mantém as pessoas em movimento, nós recuperamos o quiosque daqui. Só se vai ao local com E-90.',
        ),
        steps: KIOSK,
      },
    ),
    row(
      'how-gate',
      'onboard',
      { serviceId: 'gate-broken', kind: null },
      {
        name: both('A gate that refuses passes', 'Uma porta que recusa passes'),
        overview: both('Boarding goes first, the gate second.', 'Primeiro o embarque, depois a porta.'),
        steps: GATE,
      },
    ),
    row(
      'how-call',
      'desk',
      { serviceId: null, kind: 'incident' },
      {
        name: both('Whatever is broken', 'O que quer que esteja avariado'),
        overview: both(
          'The first line settles it in ten minutes or gives it on whole.',
          'A primeira linha resolve em dez minutos ou passa completo.',
        ),
        steps: CALL,
      },
    ),
  ];
}
