/** What can be wrong with what an estate is said to be. */
export type EstateProblemCode = 'unknown' | 'doubled' | 'atLeast' | 'itself' | 'empty' | 'chance';

/** One thing that is wrong, and with what. */
export type EstateProblem = { code: EstateProblemCode; id: string; message: string };

/** The estate as given cannot be reckoned with; `problems` says all that is wrong with it. */
export class BadEstate extends Error {
  constructor(readonly problems: EstateProblem[]) {
    super(problems.map(({ message }) => message).join(' '));
    this.name = 'BadEstate';
  }
}

/** Too much hangs on too much to give an exact answer in bounded work. */
export class TooEntangled extends Error {
  constructor(watched: string) {
    super(`Too much hangs together below "${watched}" to reckon this exactly. Ask for a smaller part of it.`);
    this.name = 'TooEntangled';
  }
}
