import { benchAssistant } from './assistant';
import { benchCalendar } from './calendar';
import { benchChat } from './chat';
import { benchClocks } from './clocks';
import { benchConversations } from './conversations';
import { benchCreate } from './create';
import { benchDoors } from './doors';
import { benchEstate } from './estate';
import { benchFind } from './find';
import { benchFirstLoad } from './firstLoad';
import { benchFulfil } from './fulfil';
import { benchImports } from './imports';
import { benchLive } from './live';
import { benchPage } from './page';
import { benchPlans } from './plans';
import { benchRecount } from './recount';
import { benchReplay } from './replay';
import { benchRuled } from './ruled';
import { benchRules } from './rules';
import { benchSearch } from './search';
import { benchMeasures } from './measures';
import { benchThings } from './things';
import { benchTimers } from './timers';
import { benchWorklists } from './worklists';

const BENCHES: Record<string, () => Promise<void>> = {
  create: benchCreate,
  firstLoad: benchFirstLoad,
  calendar: benchCalendar,
  clocks: benchClocks,
  plans: benchPlans,
  fulfil: benchFulfil,
  things: benchThings,
  measures: benchMeasures,
  doors: benchDoors,
  timers: benchTimers,
  recount: benchRecount,
  replay: benchReplay,
  worklists: benchWorklists,
  find: benchFind,
  page: benchPage,
  search: benchSearch,
  assistant: benchAssistant,
  chat: benchChat,
  live: benchLive,
  conversations: benchConversations,
  imports: benchImports,
  estate: benchEstate,
  rules: benchRules,
  ruled: benchRuled,
};

const wanted = process.argv.slice(2);
for (const [name, bench] of Object.entries(BENCHES)) {
  if (wanted.length > 0 && !wanted.includes(name)) continue;
  process.stdout.write(`\n${name}\n`);
  await bench();
}
