/** Bleed as it stands on this device: screws that are bled and joints that were looked at, not stored yet, are so. */
import { laidOver } from '../../api/records';
import type { BleedView, LookView, RecordIn, ScrewView } from '../../api/types';

type Bled = NonNullable<ScrewView['bled']>;

export function withUnsent(view: BleedView, unsent: readonly RecordIn[]): BleedView {
  const kinds = ['bled', 'looked'];
  const own = unsent.filter((r) => r.kind === 'struck' || (kinds.includes(r.kind) && r.body['setup'] === view.setup));
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
  const lookOf = (stored: LookView | null, joint: string, when: 'hold' | 'drive') =>
    laidOver<LookView>(stored, own, ({ kind, key, body, made_at }) =>
      kind === 'looked' && body['joint'] === joint && body['when'] === when
        ? {
            key,
            at: made_at ?? '',
            by: typeof body['by'] === 'string' ? body['by'] : '',
            dry: body['dry'] === true,
          }
        : null,
    );
  const joints = view.watch.joints.map((j) => ({
    ...j,
    hold: lookOf(j.hold, j.joint, 'hold'),
    drive: lookOf(j.drive, j.joint, 'drive'),
  }));
  return { ...view, schools, watch: { ...view.watch, joints } };
}
