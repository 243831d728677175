import { lazy } from 'react';
import { createBrowserRouter, Navigate } from 'react-router';
import { Home } from './ask/home/Home';
import { Gate } from './session/Gate';
import { Lost } from './ui/Lost';

const ServicePage = lazy(() =>
  import('./ask/service/ServicePage').then(({ ServicePage: page }) => ({ default: page })),
);
const MyTicket = lazy(() =>
  import('./ask/ticket/MyTicket').then(({ MyTicket: page }) => ({ default: page })),
);
const Past = lazy(() => import('./ask/past/Past').then(({ Past: page }) => ({ default: page })));
const Sessions = lazy(() => import('./session/Sessions').then(({ Sessions: page }) => ({ default: page })));
const Away = lazy(() => import('./session/Away').then(({ Away: page }) => ({ default: page })));
const Worklist = lazy(() =>
  import('./desk/worklist/Worklist').then(({ Worklist: page }) => ({ default: page })),
);
const PlanChart = lazy(() => import('./plan/PlanChart').then(({ PlanChart: page }) => ({ default: page })));

const CalendarsPage = lazy(() =>
  import('./workshop/calendars/CalendarsPage').then(({ CalendarsPage: page }) => ({ default: page })),
);
const PromisesPage = lazy(() =>
  import('./workshop/promises/PromisesPage').then(({ PromisesPage: page }) => ({ default: page })),
);
const HoursPage = lazy(() =>
  import('./workshop/hours/HoursPage').then(({ HoursPage: page }) => ({ default: page })),
);

const ServicesPage = lazy(() =>
  import('./workshop/services/ServicesPage').then(({ ServicesPage: page }) => ({ default: page })),
);
const ServiceEditor = lazy(() =>
  import('./workshop/services/ServiceEditor').then(({ ServiceEditor: page }) => ({ default: page })),
);

const RulesPage = lazy(() =>
  import('./workshop/rules/RulesPage').then(({ RulesPage: page }) => ({ default: page })),
);
const RoutingPage = lazy(() =>
  import('./workshop/routing/RoutingPage').then(({ RoutingPage: page }) => ({ default: page })),
);
const ProceduresPage = lazy(() =>
  import('./workshop/procedures/ProceduresPage').then(({ ProceduresPage: page }) => ({ default: page })),
);
const ImportPage = lazy(() =>
  import('./desk/imports/ImportPage').then(({ ImportPage: page }) => ({ default: page })),
);
const TodayPage = lazy(() =>
  import('./desk/today/TodayPage').then(({ TodayPage: page }) => ({ default: page })),
);
const ArticlePage = lazy(() =>
  import('./ask/articles/ArticlePage').then(({ ArticlePage: page }) => ({ default: page })),
);
const BrowsePage = lazy(() =>
  import('./ask/articles/BrowsePage').then(({ BrowsePage: page }) => ({ default: page })),
);
const AssistantPage = lazy(() =>
  import('./ask/assistant/AssistantPage').then(({ AssistantPage: page }) => ({ default: page })),
);
const MattersPage = lazy(() =>
  import('./workshop/assistant/MattersPage').then(({ MattersPage: page }) => ({ default: page })),
);
const OpenArticle = lazy(() =>
  import('./ask/articles/OpenArticle').then(({ OpenArticle: page }) => ({ default: page })),
);
const ArticlesPage = lazy(() =>
  import('./knowledge/ArticlesPage').then(({ ArticlesPage: page }) => ({ default: page })),
);
const EditorPage = lazy(() =>
  import('./knowledge/EditorPage').then(({ EditorPage: page }) => ({ default: page })),
);
const HealthPage = lazy(() =>
  import('./knowledge/HealthPage').then(({ HealthPage: page }) => ({ default: page })),
);
const AskedPage = lazy(() =>
  import('./knowledge/AskedPage').then(({ AskedPage: page }) => ({ default: page })),
);
const SynonymsPage = lazy(() =>
  import('./knowledge/SynonymsPage').then(({ SynonymsPage: page }) => ({ default: page })),
);
const TimePage = lazy(() => import('./desk/time/TimePage').then(({ TimePage: page }) => ({ default: page })));
const RaisePage = lazy(() =>
  import('./desk/raise/RaisePage').then(({ RaisePage: page }) => ({ default: page })),
);
const RankingPage = lazy(() =>
  import('./desk/ranking/RankingPage').then(({ RankingPage: page }) => ({ default: page })),
);
const MailPage = lazy(() =>
  import('./workshop/mail/MailPage').then(({ MailPage: page }) => ({ default: page })),
);
const ProgramsPage = lazy(() =>
  import('./workshop/programs/ProgramsPage').then(({ ProgramsPage: page }) => ({ default: page })),
);
const SignOnPage = lazy(() =>
  import('./workshop/signOn/SignOnPage').then(({ SignOnPage: page }) => ({ default: page })),
);
const CallsPage = lazy(() =>
  import('./workshop/programs/CallsPage').then(({ CallsPage: page }) => ({ default: page })),
);
const RecordsPage = lazy(() =>
  import('./workshop/records/RecordsPage').then(({ RecordsPage: page }) => ({ default: page })),
);
const RunningPage = lazy(() =>
  import('./workshop/running/RunningPage').then(({ RunningPage: page }) => ({ default: page })),
);
const AsItWas = lazy(() =>
  import('./workshop/records/AsItWas').then(({ AsItWas: page }) => ({ default: page })),
);
const LeavingPage = lazy(() =>
  import('./workshop/leaving/LeavingPage').then(({ LeavingPage: page }) => ({ default: page })),
);
const PathPage = lazy(() =>
  import('./workshop/path/PathPage').then(({ PathPage: page }) => ({ default: page })),
);
const PeopleTablePage = lazy(() =>
  import('./workshop/people/PeopleTablePage').then(({ PeopleTablePage: page }) => ({ default: page })),
);
const PeoplePage = lazy(() =>
  import('./workshop/people/PeoplePage').then(({ PeoplePage: page }) => ({ default: page })),
);
const KeptPersonPage = lazy(() =>
  import('./workshop/people/KeptPersonPage').then(({ KeptPersonPage: page }) => ({ default: page })),
);
const WelcomePage = lazy(() =>
  import('./session/WelcomePage').then(({ WelcomePage: page }) => ({ default: page })),
);
const RoomsPage = lazy(() => import('./rooms/RoomsPage').then(({ RoomsPage: page }) => ({ default: page })));
const ChatPage = lazy(() =>
  import('./workshop/chat/ChatPage').then(({ ChatPage: page }) => ({ default: page })),
);
const PersonPage = lazy(() =>
  import('./ask/person/PersonPage').then(({ PersonPage: page }) => ({ default: page })),
);
const ConversationsPage = lazy(() =>
  import('./desk/conversations/ConversationsPage').then(({ ConversationsPage: page }) => ({ default: page })),
);
const OverviewPage = lazy(() =>
  import('./desk/conversations/OverviewPage').then(({ OverviewPage: page }) => ({ default: page })),
);
const LinesPage = lazy(() =>
  import('./workshop/lines/LinesPage').then(({ LinesPage: page }) => ({ default: page })),
);
const TargetPage = lazy(() =>
  import('./workshop/promises/TargetPage').then(({ TargetPage: page }) => ({ default: page })),
);
const BoardsPage = lazy(() =>
  import('./measures/boards/BoardsPage').then(({ BoardsPage: page }) => ({ default: page })),
);
const FigureBoardPage = lazy(() =>
  import('./measures/boards/BoardPage').then(({ BoardPage: page }) => ({ default: page })),
);
const CompliancePage = lazy(() =>
  import('./measures/CompliancePage').then(({ CompliancePage: page }) => ({ default: page })),
);
const ReplayPage = lazy(() =>
  import('./measures/ReplayPage').then(({ ReplayPage: page }) => ({ default: page })),
);
const Mailbox = lazy(() => import('./mailbox/Mailbox').then(({ Mailbox: page }) => ({ default: page })));

const ThingsPage = lazy(() =>
  import('./estate/ThingsPage').then(({ ThingsPage: page }) => ({ default: page })),
);
const ThingsTablePage = lazy(() =>
  import('./estate/ThingsTablePage').then(({ ThingsTablePage: page }) => ({ default: page })),
);
const ThingPage = lazy(() => import('./estate/ThingPage').then(({ ThingPage: page }) => ({ default: page })));
const MapPage = lazy(() => import('./estate/map/MapPage').then(({ MapPage: page }) => ({ default: page })));
const StockPage = lazy(() => import('./estate/StockPage').then(({ StockPage: page }) => ({ default: page })));
const FiguresPage = lazy(() =>
  import('./estate/FiguresPage').then(({ FiguresPage: page }) => ({ default: page })),
);
const NoticesPage = lazy(() =>
  import('./estate/notices/NoticesPage').then(({ NoticesPage: page }) => ({ default: page })),
);
const NoticePage = lazy(() =>
  import('./estate/notices/NoticePage').then(({ NoticePage: page }) => ({ default: page })),
);
const OpenNotices = lazy(() =>
  import('./notices/OpenNotices').then(({ OpenNotices: page }) => ({ default: page })),
);
const WorksPage = lazy(() => import('./works/WorksPage').then(({ WorksPage: page }) => ({ default: page })));
const NewWorkPage = lazy(() =>
  import('./works/NewWorkPage').then(({ NewWorkPage: page }) => ({ default: page })),
);
const WorkPage = lazy(() => import('./works/WorkPage').then(({ WorkPage: page }) => ({ default: page })));
const BoardPage = lazy(() => import('./works/BoardPage').then(({ BoardPage: page }) => ({ default: page })));
const TemplatesPage = lazy(() =>
  import('./works/TemplatesPage').then(({ TemplatesPage: page }) => ({ default: page })),
);
const ProblemsPage = lazy(() =>
  import('./problems/ProblemsPage').then(({ ProblemsPage: page }) => ({ default: page })),
);
const ProblemPage = lazy(() =>
  import('./problems/ProblemPage').then(({ ProblemPage: page }) => ({ default: page })),
);
const CodePage = lazy(() => import('./estate/CodePage').then(({ CodePage: page }) => ({ default: page })));
const MyThings = lazy(() =>
  import('./ask/things/MyThings').then(({ MyThings: page }) => ({ default: page })),
);
const KindsPage = lazy(() =>
  import('./workshop/things/KindsPage').then(({ KindsPage: page }) => ({ default: page })),
);

/** Ask comes with the first load; the Desk and the rest when they are entered. */
export const router = createBrowserRouter([
  // Read by everyone, also without signing in.
  { path: 'open/articles/:id', element: <OpenArticle />, errorElement: <Lost isFailed /> },
  { path: 'open/notices', element: <OpenNotices />, errorElement: <Lost isFailed /> },
  { path: 'welcome/:token', element: <WelcomePage />, errorElement: <Lost isFailed /> },
  {
    element: <Gate />,
    errorElement: <Lost isFailed />,
    children: [
      { index: true, element: <Navigate to="/ask" replace /> },
      { path: 'ask', element: <Home /> },
      { path: 'ask/services/:id', element: <ServicePage /> },
      { path: 's/:id', element: <ServicePage /> },
      { path: 'embed/:id', element: <ServicePage /> },
      { path: 'ask/tickets/:number', element: <MyTicket /> },
      { path: 'ask/past', element: <Past /> },
      { path: 'ask/person', element: <PersonPage /> },
      { path: 'ask/things', element: <MyThings /> },
      { path: 't/:id', element: <CodePage /> },
      { path: 'ask/assistant', element: <AssistantPage /> },
      { path: 'ask/articles', element: <BrowsePage /> },
      { path: 'ask/articles/:id', element: <ArticlePage /> },
      { path: 'estate', element: <ThingsPage /> },
      { path: 'estate/stock', element: <StockPage /> },
      { path: 'estate/figures', element: <FiguresPage /> },
      { path: 'estate/table', element: <ThingsTablePage /> },
      { path: 'estate/notices', element: <NoticesPage /> },
      { path: 'estate/notices/:id', element: <NoticePage /> },
      { path: 'estate/problems', element: <ProblemsPage /> },
      { path: 'estate/problems/:number', element: <ProblemPage /> },
      { path: 'estate/works', element: <WorksPage /> },
      { path: 'estate/works/new', element: <NewWorkPage /> },
      { path: 'estate/works/board', element: <BoardPage /> },
      { path: 'estate/works/templates', element: <TemplatesPage /> },
      { path: 'estate/works/:number', element: <WorkPage /> },
      { path: 'estate/:id', element: <ThingPage /> },
      { path: 'estate/:id/map', element: <MapPage /> },
      { path: 'knowledge', element: <ArticlesPage /> },
      { path: 'knowledge/new', element: <EditorPage /> },
      { path: 'knowledge/articles/:id', element: <EditorPage /> },
      { path: 'knowledge/health', element: <HealthPage /> },
      { path: 'knowledge/asked', element: <AskedPage /> },
      { path: 'knowledge/words', element: <SynonymsPage /> },
      { path: 'desk', element: <Navigate to="/desk/today" replace /> },
      { path: 'desk/today', element: <TodayPage /> },
      { path: 'desk/time', element: <TimePage /> },
      { path: 'desk/raise', element: <RaisePage /> },
      { path: 'desk/conversations/overview', element: <OverviewPage /> },
      { path: 'desk/conversations/:id?', element: <ConversationsPage /> },
      { path: 'desk/import', element: <ImportPage /> },
      { path: 'desk/ranking/:team', element: <RankingPage /> },
      { path: 'desk/:list', element: <Worklist /> },
      { path: 'desk/:list/:number', element: <Worklist /> },
      { path: 'desk/:list/:number/plan', element: <PlanChart /> },
      { path: 'workshop', element: <PathPage /> },
      { path: 'workshop/people', element: <PeoplePage /> },
      { path: 'workshop/people/table', element: <PeopleTablePage /> },
      { path: 'workshop/people/:id', element: <KeptPersonPage /> },
      { path: 'workshop/things/:id?', element: <KindsPage /> },
      { path: 'workshop/services', element: <ServicesPage /> },
      { path: 'workshop/services/:id', element: <ServiceEditor /> },
      { path: 'workshop/calendars/:id?', element: <CalendarsPage /> },
      { path: 'workshop/promises', element: <PromisesPage /> },
      { path: 'workshop/promises/:id', element: <TargetPage /> },
      { path: 'measures', element: <Navigate to="/measures/boards" replace /> },
      { path: 'measures/boards', element: <BoardsPage /> },
      { path: 'measures/boards/:id', element: <FigureBoardPage /> },
      { path: 'measures/compliance', element: <CompliancePage /> },
      { path: 'measures/replay', element: <ReplayPage /> },
      { path: 'workshop/hours', element: <HoursPage /> },
      { path: 'workshop/rules/:id?', element: <RulesPage /> },
      { path: 'workshop/records', element: <RecordsPage /> },
      { path: 'workshop/running', element: <RunningPage /> },
      { path: 'records/tickets/:number', element: <AsItWas /> },
      { path: 'workshop/programs/calls', element: <CallsPage /> },
      { path: 'workshop/programs/:id?', element: <ProgramsPage /> },
      { path: 'workshop/signOn/:id?', element: <SignOnPage /> },
      { path: 'workshop/routing', element: <RoutingPage /> },
      { path: 'workshop/procedures/:id?', element: <ProceduresPage /> },
      { path: 'workshop/assistant', element: <MattersPage /> },
      { path: 'workshop/lines', element: <LinesPage /> },
      { path: 'workshop/chat', element: <ChatPage /> },
      { path: 'workshop/mail', element: <MailPage /> },
      { path: 'workshop/leaving/:id?', element: <LeavingPage /> },
      { path: 'rooms/:id?', element: <RoomsPage /> },
      { path: 'mailbox', element: <Mailbox /> },
      { path: 'sessions', element: <Sessions /> },
      { path: 'away', element: <Away /> },
      { path: '*', element: <Lost /> },
    ],
  },
]);
