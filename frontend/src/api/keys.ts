/** The names under which answers of the server are kept: one list. */
export const keys = {
  jobs: ['jobs'] as const,
  /** Every page of a job. */
  pages: (id: number) => ['page', id] as const,
  page: (id: number, page: string | null, setup: string | null) => ['page', id, page, setup] as const,
  step: (id: number) => ['step', id] as const,
  stages: (id: number, revision: number, recorded = 0) => ['stages', id, revision, recorded] as const,
  moment: (id: number, revision: number, ...asked: unknown[]) => ['moment', id, revision, ...asked] as const,
  failed: (id: number, revision: number, ...asked: unknown[]) => ['failed', id, revision, ...asked] as const,
  working: (id: number, revision: number, ...asked: unknown[]) => ['working', id, revision, ...asked] as const,
  verdicts: (id: number, revision: number) => ['verdicts', id, revision] as const,
  mends: (id: number, revision: number, setup: string) => ['mends', id, revision, setup] as const,
  heat: (id: number, revision: number, ...asked: unknown[]) => ['heat', id, revision, ...asked] as const,
  compare: (id: number, revision: number, ...asked: unknown[]) => ['compare', id, revision, ...asked] as const,
  sheet: (id: number, revision: number, setup: string) => ['sheet', id, revision, setup] as const,
  sensitivity: (id: number, revision: number, setup: string) => ['sensitivity', id, revision, setup] as const,
  away: ['jobs', 'away'] as const,
  devices: ['devices'] as const,
  backups: ['backups'] as const,
  examples: ['examples'] as const,
  card: (id: number, revision: number) => ['card', id, revision] as const,
  choices: (id: number, revision: number, setup: string, control: string | null) =>
    ['match choices', id, revision, setup, control] as const,
  yard: (id: number, revision: number, setup: string, limits: Record<string, string>) =>
    ['yard', id, revision, setup, limits] as const,
  run: (id: number, revision: number, recorded: number, setup: string, run: number) =>
    ['stand', id, revision, recorded, setup, run] as const,
  donors: (id: number, revision: number, ...asked: unknown[]) => ['donors', id, revision, ...asked] as const,
  library: ['donors'] as const,
  oftenAsked: (id: number, revision: number, setup: string | null) => ['often asked', id, revision, setup] as const,
  routes: (id: number, revision: number) => ['routes', id, revision] as const,
  remarks: (id: number, recorded: number) => ['remarks', id, recorded] as const,
  search: (id: number) => ['match', id] as const,
};
