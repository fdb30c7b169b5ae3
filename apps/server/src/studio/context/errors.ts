import type { FieldProblem } from '@jam-ledger/contract';

/** Why a thing that was asked for was not done. Each carries a plain sentence for the person. */
export abstract class Trouble extends Error {}

/** Nothing with this id is in the studio. */
export class NotFound extends Trouble {}

/** It is there, but not for this person. */
export class Forbidden extends Trouble {}

/** Name and password do not belong together; which half was wrong is never said. */
export class WrongSignIn extends Trouble {
  constructor() {
    super('This name and password do not belong together.');
  }
}

/** The row was changed by somebody else in between; carries it as it stands. */
export class Conflict extends Trouble {
  readonly current: unknown;
  constructor(current: unknown) {
    super('This was changed elsewhere in the meantime; nothing was overwritten.');
    this.current = current;
  }
}

/** What was asked is unsound; every problem at its field. */
export class Invalid extends Trouble {
  readonly problems: readonly FieldProblem[];
  constructor(problems: readonly FieldProblem[]) {
    super('Some of this cannot be kept as it is.');
    this.problems = problems;
  }
}
