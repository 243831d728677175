import type { UnitOfWork } from '../unitOfWork';

/** The lead of a team, where it has one alone: what is to be ranked is theirs. */
export async function findOnlyLead({ listo, tx }: UnitOfWork, teamId: string): Promise<string | null> {
  const leads = await listo.db.select<{ id: string }>(
    `SELECT DISTINCT p.id FROM team_members m JOIN people p ON p.id = m.personId AND p.leftAt IS NULL
     WHERE m.teamId = :teamId AND m.role = 'lead'`,
    { teamId },
    tx,
  );
  return leads.length === 1 ? leads[0]!.id : null;
}
