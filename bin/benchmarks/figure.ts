/** One figure that an issue asks for. */
export interface Figure {
  name: string;
  value: number;
  unit: string;
  goal: string;
  ok: boolean;
}
