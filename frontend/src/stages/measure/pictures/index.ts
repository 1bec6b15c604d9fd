/** Which drawing a section has, from its own entries. */
import type { Entry, Section } from '../../../api/types';
import { onItsTail } from '../../../drawings/vehicle';
import type { Drawn } from '../Picture';
import type { Measure } from '../useMeasure';
import { boosterPicture } from './booster';
import { discPicture, drumPicture } from './brake';
import { cylinderPicture } from './cylinder';
import { linkagePicture } from './linkage';
import { pedalPicture } from './pedal';
import { vehiclePicture } from './vehicle';

export function pictureOf(section: Section, { sheet, entering }: Measure): Drawn | null {
  const entries = section.groups.flatMap((g) => g.entries);
  const at = (key: string): Entry | undefined => entries.find((e) => e.key === key);
  const n = (key: string) => at(key)?.value ?? null;
  const word = (key: string) => at(key)?.text ?? '';
  const here = entries.find((e) => e.path === entering.here)?.key ?? null;
  const pinPath = at('linkage.rod_mm')?.path.replace('linkage.rod_mm', 'pivot_to_pin_mm');
  switch (section.kind) {
    case 'control':
      return pedalPicture({
        a: n('pivot_to_pad_mm'),
        b: n('pivot_to_pin_mm'),
        travel: n('available_travel_mm'),
        free: n('free_play_mm'),
        car: section.control === 'car_pedal',
        here,
      });
    case 'booster':
      return boosterPicture(word('kind') !== 'none');
    case 'cylinder': {
      const twin = at('front.bore_mm') !== undefined;
      const kind = twin ? 'twin' : at('lost_primary_mm') ? 'tandem' : 'single';
      return cylinderPicture({
        kind,
        bore: n(twin ? 'front.bore_mm' : 'bore_mm'),
        rear: n('rear.bore_mm'),
        stroke: n(twin ? 'front.stroke_mm' : 'stroke_mm'),
        here,
      });
    }
    case 'brake':
      if (at('wheel_cylinder_mm'))
        return drumPicture({ drum: n('drum_diameter_mm'), cylinder: n('wheel_cylinder_mm') });
      return discPicture({
        fixed: word('caliper') === 'fixed',
        pistons: at('pistons_mm')?.values ?? [],
        rotor: n('rotor_diameter_mm'),
        pad: n('pad_height_mm'),
        thickness: n('rotor_thickness_mm'),
        vented: at('rotor_vented')?.flag ?? false,
      });
    case 'vehicle':
      return vehiclePicture({
        kind: sheet.kind,
        wheelbase: n('wheelbase_mm'),
        height: n('cg_height_mm'),
        share: n('front_share'),
        radius: null,
        tail: onItsTail(sheet),
      });
    case 'linkage':
      return linkagePicture({
        pin:
          sheet.sections.flatMap((s) => s.groups.flatMap((g) => g.entries)).find((e) => e.path === pinPath)?.value ??
          null,
        rest: n('linkage.rest_angle_deg') ?? -90,
        sense: word('linkage.sense') === '-1' ? -1 : 1,
        point: [n('linkage.bore_point_mm.0') ?? 150, n('linkage.bore_point_mm.1') ?? -60],
        direction: n('linkage.bore_direction_deg') ?? 0,
        rod: n('linkage.rod_mm') ?? 150,
        here,
      });
    case 'lines':
      return null;
  }
}
