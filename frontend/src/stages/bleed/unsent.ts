/** Bleed as it stands on this device: screws that are bled and not stored yet are bled. */
import { laidOver } from '../../api/records';
import type { BleedView, RecordIn, ScrewView } from '../../api/types';

type Bled = NonNullable<ScrewView['bled']>;

export function withUnsent(view: BleedView, unsent: readonly RecordIn[]): BleedView {
  const own = unsent.filter((r) => r.kind === 'struck' || (r.kind === 'bled' && r.body['setup'] === view.setup));
  if (own.length === 0) return view;
  const bledOf = (screw: ScrewView) =>
    laidOver<Bled>(screw.bled, own, ({ kind, key, body, made_at }) =>
      kind === 'bled' && body['screw'] === screw.name
        ? {
            key,
            at: made_at ?? '',
            by: typeof body['by'] === 'string' ? body['by'] : '',
            bubbles: body['bubbles'] === true,
            dry: body['dry'] === true,
            volume: '',
          }
        : null,
    );
  const schools = view.schools.map((school) => ({
    ...school,
    screws: school.screws.map((screw) => ({ ...screw, bled: bledOf(screw) })),
  }));
  return { ...view, schools };
}
