export class ApprovalError extends Error {
  constructor(message: string) {
    super(message);
    this.name = new.target.name;
  }
}

export class NoVoters extends ApprovalError {
  constructor() {
    super('Nobody can decide this step. Name at least one approver.');
  }
}

export class BadCount extends ApprovalError {
  constructor(readonly count: number) {
    super(`${count} approvals cannot be needed. Ask for at least one.`);
  }
}

export class BadPercent extends ApprovalError {
  constructor(readonly percent: number) {
    super(`${percent} % of the approvers cannot be needed. Give a share from 0 to 100.`);
  }
}
