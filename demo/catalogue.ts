import type { CategoryRow } from '../server/catalogue/model';
import { t } from './serviceParts';

type Branch = [id: string, en: string, pt: string, services: string[], branches?: Branch[]];

/** The catalogue by subject. */
const TREE: Branch[] = [
  [
    'it',
    'Computers and networks',
    'Computadores e redes',
    ['other'],
    [
      ['signing-in', 'Signing in and access', 'Entrar e acessos', ['locked-out', 'access']],
      ['devices', 'Devices', 'Aparelhos', ['laptop', 'loan', 'printing', 'radio']],
      ['networks', 'Networks and radio', 'Redes e rádio', ['wifi', 'sea-link']],
      ['figures', 'Applications', 'Aplicações', ['report', 'roster']],
    ],
  ],
  [
    'fleet',
    'Ships and gates',
    'Navios e portas',
    [],
    [
      [
        'gates',
        'Gates and kiosks',
        'Portas e quiosques',
        ['gate-broken', 'gate-scanner', 'kiosk', 'passenger-screen'],
      ],
      ['bridge', 'On the bridge', 'Na ponte', ['bridge-tablet', 'bridge-instrument']],
      ['stock', 'Stores', 'Armazéns', ['spares', 'safety-gear', 'workwear']],
    ],
  ],
  [
    'working',
    'Working here',
    'Trabalhar aqui',
    [],
    [
      ['joining', 'Coming and moving', 'Chegar e mudar', ['starter', 'new-starter', 'crew-transfer']],
      ['personal', 'About me', 'Sobre mim', ['in-confidence', 'letter', 'name-change']],
    ],
  ],
  ['buildings', 'Buildings', 'Edifícios', ['building', 'badge', 'room', 'cleaning']],
  ['payments', 'Money', 'Dinheiro', ['invoice', 'expenses', 'supplier']],
];

function* flatten(
  branches: Branch[],
  parentId: string | null,
): Generator<CategoryRow & { services: string[] }> {
  for (const [i, [id, en, pt, services, more = []]] of branches.entries()) {
    yield { id, parentId, name: t(en, pt), position: i, services };
    yield* flatten(more, id);
  }
}

const BRANCHES = [...flatten(TREE, null)];

export const CATEGORIES: CategoryRow[] = BRANCHES.map(({ services: _, ...category }) => category);

/** Where in the tree a service stands. */
export function categoryOf(serviceId: string): string | null {
  return BRANCHES.find(({ services }) => services.includes(serviceId))?.id ?? null;
}
