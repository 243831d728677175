/** What is wrong with an approval, so that nobody can decide it. */
export class ApprovalError extends Error {
  constructor(message: string) {
    super(message);
    this.name = new.target.name;
  }
}

/** An approval without anybody who votes. */
export class NoVoters extends ApprovalError {
  constructor() {
    super('Nobody can decide this step. Name at least one approver.');
  }
}

/** Fewer than one approval is asked for. */
export class BadCount extends ApprovalError {
  constructor(readonly count: number) {
    super(`${count} approvals cannot be needed. Ask for at least one.`);
  }
}

/** A share of approvers that is not from 0 to 100 percent. */
export class BadPercent extends ApprovalError {
  constructor(readonly percent: number) {
    super(`${percent} % of the approvers cannot be needed. Give a share from 0 to 100.`);
  }
}
