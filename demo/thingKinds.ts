import type { LocalText } from '../core/forms';
import type { ThingKindRow } from '../server/estate/model';

const t = (en: string, pt: string): LocalText => ({ en, pt });

const OF_DEVICES: ThingKindRow['form'] = {
  fields: [
    { name: 'system', kind: 'text', needed: false, label: t('System and version', 'Sistema e versão') },
    {
      ...{ name: 'storage', kind: 'number', needed: false, label: t('Storage', 'Armazenamento') },
      ...{ unit: t('GB', 'GB'), least: 1, most: 100_000 },
    },
  ],
};
const OF_LINES: ThingKindRow['form'] = {
  fields: [
    { name: 'circuit', kind: 'text', needed: false, label: t('Circuit number', 'Número do circuito') },
    { name: 'supplier', kind: 'text', needed: false, label: t('Supplier', 'Fornecedor') },
    {
      ...{ name: 'speed', kind: 'number', needed: false, label: t('Speed', 'Velocidade') },
      ...{ unit: t('Mbit/s', 'Mbit/s'), least: 1, most: 1_000_000 },
    },
  ],
};
const OF_PROGRAMS: ThingKindRow['form'] = {
  fields: [
    { name: 'supplier', kind: 'text', needed: false, label: t('Supplier', 'Fornecedor') },
    {
      name: 'seats',
      kind: 'number',
      needed: false,
      label: t('Licences', 'Licenças'),
      least: 0,
      most: 100_000,
    },
  ],
};

type Kind = Pick<ThingKindRow, 'form' | 'seenBy' | 'keptBy' | 'serviceId' | 'months'> & { name: LocalText };
const KINDS: Record<string, Kind> = {
  service: {
    ...{
      name: t('Service', 'Serviço'),
      form: { fields: [] },
      seenBy: 'desk',
      keptBy: ['desk', 'apps', 'network'],
    },
    ...{ serviceId: null, months: null },
  },
  vessel: {
    ...{ name: t('Vessel', 'Navio'), form: { fields: [] }, seenBy: 'everyone', keptBy: ['onboard'] },
    ...{ serviceId: 'sea-link', months: null },
  },
  laptop: {
    ...{ name: t('Laptop', 'Portátil'), form: OF_DEVICES, seenBy: 'everyone', keptBy: ['desk'] },
    ...{ serviceId: 'other', months: 48 },
  },
  tablet: {
    ...{ name: t('Tablet', 'Tablet'), form: OF_DEVICES, seenBy: 'everyone', keptBy: ['desk', 'onboard'] },
    ...{ serviceId: 'other', months: 36 },
  },
  scanner: {
    ...{ name: t('Boarding scanner', 'Leitor de embarque'), form: OF_DEVICES, seenBy: 'everyone' },
    ...{ keptBy: ['desk', 'facilities'], serviceId: 'other', months: 60 },
  },
  kiosk: {
    ...{ name: t('Ticket kiosk', 'Quiosque de bilhetes'), form: OF_DEVICES, seenBy: 'everyone' },
    ...{ keptBy: ['desk', 'facilities'], serviceId: 'kiosk', months: 72 },
  },
  network: {
    ...{ name: t('Network and lines', 'Rede e linhas'), form: OF_LINES, seenBy: 'desk', keptBy: ['network'] },
    ...{ serviceId: null, months: 84 },
  },
  server: {
    ...{ name: t('Server', 'Servidor'), form: OF_DEVICES, seenBy: 'desk', keptBy: ['network', 'apps'] },
    ...{ serviceId: null, months: 60 },
  },
  program: {
    ...{ name: t('Program', 'Programa'), form: OF_PROGRAMS, seenBy: 'desk', keptBy: ['apps'] },
    ...{ serviceId: null, months: null },
  },
};

/** What people carry, and what they use at a gate for a shift. */
const HANDED_OUT = ['laptop', 'tablet', 'scanner'];

/** The kinds of things that Solvarra Ferries keeps track of. */
export const createThingKinds = (): ThingKindRow[] =>
  Object.entries(KINDS).map(([id, kind], position) => ({
    ...{ id, ...kind, position, version: 1 },
    isHandedOut: HANDED_OUT.includes(id),
  }));
