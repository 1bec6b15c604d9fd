/** A figure above the line, with its unit. */
import { Unit, Words } from '../../../drawings/ink';

export const Value = ({ x, y, v, unit }: { x: number; y: number; v: string; unit: string }) => (
  <Words x={x} y={y - 9} as="fig" at="middle">
    {v} <Unit>{unit}</Unit>
  </Words>
);
