import type { TemplateRow } from '../server/templates/model';

/** What teams have prepared for what comes again and again. */
export function createTemplates(): TemplateRow[] {
  return [
    {
      ...{ id: 'season-crew', teamId: 'desk', serviceId: 'crew-transfer', isOffered: true },
      name: 'Summer timetable: deck crew to Port Alder',
      title: 'Deck crew to Port Alder for the summer timetable',
      answers: { from: 'Fenwick Sound', to: 'Port Alder', gear: true, size: 'm', tablet: false, berth: true },
    },
    {
      ...{ id: 'season-agent', teamId: 'desk', serviceId: 'starter', isOffered: true },
      name: 'A terminal agent for the season',
      title: 'A terminal agent for the season',
      answers: { job: 'Terminal agent', department: 'Terminals', hours: 'part', laptop: false, phone: false },
    },
    {
      ...{ id: 'kiosk-queue', teamId: 'onboard', serviceId: 'kiosk', isOffered: false },
      name: 'School holidays: kiosk slow, people queue',
      title: 'Kiosk slow since the holidays began',
      answers: {
        what: 'Takes half a minute for a ticket; people queue.',
        impact: 'site',
        urgency: 'slowsWork',
      },
    },
  ];
}
