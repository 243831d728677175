import { getOwn } from '../records';
import type { StepApproverRef } from '../approvals';
import { listFields } from '../conditions';
import { checkForm, LANGUAGES, type LocalText } from '../forms';
import { checkPlan, END_BLANKS, type Plan, type ServicePlan, type ServiceStep } from '../plans';
import { listBlanks } from '../text';
import { checkOpening } from './opening';
import type { ServiceDefinition } from './types';

/** The parts of a service's page, in their order. */
export const SERVICE_PARTS = ['about', 'audience', 'form', 'approvals', 'plan', 'words'] as const;
/** A part of a service's page, as its problems name it. */
export type ServicePart = (typeof SERVICE_PARTS)[number];

/**
 * What is in the way of publishing. `at`: which question, step or team it is about, by its name; `detail`: what else
 * the words need.
 */
export type ServiceProblem = { part: ServicePart; code: string; at?: string; detail?: string };

/** What the organisation is, as far as a service can go wrong against it. */
export type ServiceSurroundings = {
  /** How many people the audience is today. */
  audience: number;
  /** How many work in each team, and how many lead it. */
  teams: Record<string, { members: number; leads: number }>;
  /** Those who work here. */
  hasPerson: (id: string) => boolean;
  /** Whether an automatic step may call an outside address. */
  mayCall: (address: string) => boolean;
};

const isSaid = (text: LocalText): boolean => LANGUAGES.every((language) => text[language].trim() !== '');

/** What conditions on a request may ask for beside its answers. */
const KNOWN_FIELDS = ['cost', 'priority', 'kind', 'impact', 'urgency'];

function canAsk(
  ref: StepApproverRef,
  { teams, hasPerson }: ServiceSurroundings,
  fieldNames: string[],
): boolean {
  if ('person' in ref) return hasPerson(ref.person);
  if ('team' in ref) return (getOwn(teams, ref.team)?.[ref.only === 'leads' ? 'leads' : 'members'] ?? 0) > 0;
  if ('headOfSite' in ref) return fieldNames.includes(ref.headOfSite);
  return true;
}

function* checkAbout(
  { title, description, teamId, groupId, cost }: ServiceDefinition,
  { teams }: ServiceSurroundings,
): Generator<ServiceProblem> {
  const part = 'about';
  if (!isSaid(title)) yield { part, code: 'noTitle' };
  if (!isSaid(description)) yield { part, code: 'noDescription' };
  const team = getOwn(teams, teamId);
  if (!team) yield { part, code: 'noTeam' };
  else if (team.members === 0 && groupId === null) yield { part, code: 'emptyTeam' };
  if (cost !== null && cost < 0) yield { part, code: 'badCost' };
}

type Agreed = { refs: StepApproverRef[]; needs: { kind: string; count?: number; percent?: number } };

/** Whether the people asked could ever be enough. */
function* checkAgreed(
  { refs, needs }: Agreed,
  around: ServiceSurroundings,
  names: string[],
): Generator<string> {
  if (refs.length === 0) yield 'noApprovers';
  else if (!refs.some((ref) => canAsk(ref, around, names))) yield 'nobodyDecides';
  else if (!refs.every((ref) => canAsk(ref, around, names))) yield 'someoneGone';
  if (needs.kind === 'count' && !((needs.count ?? 0) >= 1)) yield 'badNeeds';
  if (needs.kind === 'percent' && !((needs.percent ?? -1) >= 0 && (needs.percent ?? 101) <= 100))
    yield 'badNeeds';
}

function* checkApprovals(
  { approvals, form, plan }: ServiceDefinition,
  around: ServiceSurroundings,
): Generator<ServiceProblem> {
  const names = form.fields.map(({ name }) => name);
  // A plan asks by steps of its own; two ways beside each other would leave one out.
  if (plan && approvals.length > 0) yield { part: 'approvals', code: 'besidePlan' };
  for (const step of approvals) {
    const at = step.name.en;
    if (!isSaid(step.name)) yield { part: 'approvals', code: 'noName' };
    for (const code of checkAgreed(step, around, names)) yield { part: 'approvals', code, at };
    const unknown = (step.when ? listFields(step.when) : []).find(
      (field) => !names.includes(field) && !KNOWN_FIELDS.includes(field),
    );
    if (unknown !== undefined) yield { part: 'approvals', code: 'unknownField', at, detail: unknown };
  }
}

/** A plan as far as its shape goes: on one calendar, with no effort. */
function toShape({ legs, steps }: ServicePlan): Plan {
  return {
    legs: legs.map(({ id }) => id),
    steps: steps.map(({ id, leg, kind, after }) => ({
      ...{ id, leg, kind, effort: 0, calendarId: '' },
      ...(after && { after }),
    })),
  };
}

const isWithoutEffort = ({ effort }: ServiceStep): boolean => effort === undefined || !/[1-9]/.test(effort);

function* checkSteps(
  { plan, form }: ServiceDefinition,
  around: ServiceSurroundings,
): Generator<ServiceProblem> {
  if (!plan) return;
  const part = 'plan';
  const names = form.fields.map(({ name }) => name);
  const nameOf = (id: string): string => plan.steps.find((step) => step.id === id)?.name.en ?? id;
  for (const { code, steps } of checkPlan(toShape(plan)))
    yield { part, code, at: steps.map(nameOf).join(', ') };
  if (plan.steps.length === 0) yield { part, code: 'noSteps' };
  const blanks = new Set(LANGUAGES.flatMap((language) => listBlanks(plan.doneWords?.[language] ?? '')));
  for (const blank of blanks)
    if (![...names, ...END_BLANKS].includes(blank)) yield { part, code: 'unknownBlank', detail: blank };
  for (const step of plan.steps) {
    const at = step.name.en;
    if (!isSaid(step.name)) yield { part, code: 'noName' };
    if (step.kind === 'task' || step.kind === 'ranking') {
      const team = getOwn(around.teams, step.teamId);
      if (!team) yield { part, code: 'noTeam', at };
      else if (team.members === 0) yield { part, code: 'emptyTeam', at };
      else if (step.kind === 'ranking' && team.leads === 0) yield { part, code: 'noLead', at };
      // Without it the plan would promise its end for the moment in which it begins.
      if (step.kind === 'task' && isWithoutEffort(step)) yield { part, code: 'noEffort', at };
    }
    if (step.kind === 'automatic' && step.action.do === 'send' && !around.mayCall(step.action.address))
      yield { part, code: 'addressNotAllowed', at, detail: step.action.address };
    if (step.kind === 'approval')
      for (const code of checkAgreed(step, around, names)) yield { part, code, at };
    const asked = [
      ...(step.when ? listFields(step.when) : []),
      ...(step.notBefore ? [step.notBefore.field] : []),
    ];
    // A step before it may set what it asks for.
    const set = plan.steps.flatMap((other) =>
      other.kind === 'automatic' && other.action.do === 'setField' ? [other.action.field] : [],
    );
    const unknown = asked.find((field) => ![...names, ...KNOWN_FIELDS, ...set].includes(field));
    if (unknown !== undefined) yield { part, code: 'unknownField', at, detail: unknown };
  }
}

/** All that is in the way of publishing a service, in the order of its page. */
export function checkService(definition: ServiceDefinition, around: ServiceSurroundings): ServiceProblem[] {
  return [
    ...checkAbout(definition, around),
    ...(around.audience === 0 ? [{ part: 'audience' as const, code: 'nobody' }] : []),
    ...checkOpening(definition.opening).map((code) => ({ part: 'audience' as const, code })),
    ...(definition.thanks && !isSaid(definition.thanks)
      ? [{ part: 'words' as const, code: 'noThanks' }]
      : []),
    ...checkForm(definition.form).map(({ code, field, other }) => ({
      ...{ part: 'form' as const, code, at: field },
      ...(other !== undefined && { detail: other }),
    })),
    ...checkApprovals(definition, around),
    ...checkSteps(definition, around),
  ];
}
