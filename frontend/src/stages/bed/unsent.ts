/** Bed as it stands on this device: slow-downs that are driven and not stored yet are driven. */
import { laidOver } from '../../api/records';
import type { BedView, RecordIn } from '../../api/types';

export function withUnsent(view: BedView, unsent: readonly RecordIn[]): BedView {
  const own = unsent.filter((r) => r.kind === 'struck' || (r.kind === 'bedded' && r.body['setup'] === view.setup));
  if (own.length === 0) return view;
  const every = view.slow_downs.map((slow) => {
    const stored = slow.driven === null ? null : { driven: slow.driven, key: slow.key };
    const at = laidOver(stored, own, ({ kind, key, body, made_at }) =>
      kind === 'bedded' && body['number'] === slow.number ? { driven: made_at ?? '', key } : null,
    );
    return { ...slow, driven: at?.driven ?? null, key: at?.key ?? null };
  });
  return { ...view, slow_downs: every, driven: every.filter((s) => s.driven !== null).length };
}
