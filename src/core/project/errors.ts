/** A refusal: a stable code, one sentence for people, and the ids it concerns. The project is left untouched. */
export class DomainError extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly ids: readonly string[] = [],
  ) {
    super(message);
    this.name = 'DomainError';
  }
}
