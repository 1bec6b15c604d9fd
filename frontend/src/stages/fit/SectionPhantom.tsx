/** The wheel cut through the brake before its sizes are known: what is not measured phantom, each size at its letter. */
import type { SectionView } from '../../api/types';
import { Arrow, Line, Path, Words, type Point } from '../../drawings/ink';

const letters: readonly { a: Point; b: Point; at: Point }[] = [
  { a: [24, 46], b: [24, 170], at: [14, 112] },
  { a: [60, 24], b: [300, 24], at: [180, 18] },
  { a: [66, 178], b: [180, 178], at: [124, 192] },
  { a: [50, 158], b: [72, 158], at: [61, 152] },
  { a: [92, 200], b: [168, 200], at: [130, 214] },
  { a: [168, 206], b: [248, 206], at: [208, 220] },
  { a: [262, 136], b: [262, 170], at: [274, 158] },
  { a: [286, 62], b: [286, 170], at: [298, 120] },
];

export function SectionPhantom({ section }: { section: SectionView }) {
  const wanted = section.fields.filter((f) => f.wanted);
  const known = new Set(wanted.filter((f) => f.text !== '').map((f) => f.letter));
  const ink = (letter: string) => (known.has(letter) ? 'edge' : 'phantom');
  return (
    <svg
      viewBox="0 0 330 226"
      style={{ width: '100%', maxWidth: 330 }}
      role="img"
      aria-label={`The wheel cut through the brake. ${wanted.map((f) => `${f.letter}: ${f.label}`).join(', ')}`}
    >
      <Path d="M50,170L66,56L300,56L300,44L58,44L42,170Z" as={known.size === wanted.length ? 'section' : 'phantom'} />
      <Path d="M92,136L92,70L108,62L240,62L248,70L248,136Z" as={ink('E')} />
      <Path d="M150,96h24v74h-24Z" as="phantom" />
      <Line a={[10, 170]} b={[320, 170]} as="centre" />
      <Line a={[168, 62]} b={[168, 210]} as="thin" />
      {letters.map(({ a, b, at }, i) => {
        const letter = wanted[i]?.letter ?? '';
        const turn = (Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI;
        return (
          <g key={letter}>
            <Line a={a} b={b} as="thin" />
            <Arrow x={a[0]} y={a[1]} turn={turn + 180} />
            <Arrow x={b[0]} y={b[1]} turn={turn} />
            <Words x={at[0]} y={at[1]} as={known.has(letter) ? 'label-strong' : 'label-plan'} at="middle">
              {letter}
            </Words>
          </g>
        );
      })}
    </svg>
  );
}
