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

  /** A refusal is one whichever bundle made it: the server's entry and its routes are built apart. */
  static override [Symbol.hasInstance](value: unknown): boolean {
    return value instanceof Error && value.name === 'DomainError';
  }
}
