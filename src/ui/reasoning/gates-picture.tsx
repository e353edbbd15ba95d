import type { ReactNode } from 'react';
import type { Expr } from '@/core/logic';

const [ROW, STEP, BOX] = [24, 92, 44];
const LEAF = 250;

/** What a gate is called, in the rectangles of IEC 60617-12 (from memory), and what goes into it. */
function gateOf(expr: Expr): { says: string; inputs: { expr: Expr; says?: string }[] } | undefined {
  switch (expr.op) {
    case 'and':
      return { says: '&', inputs: expr.of.map((one) => ({ expr: one })) };
    case 'or':
      return { says: '≥1', inputs: expr.of.map((one) => ({ expr: one })) };
    case 'not':
      return { says: '1', inputs: [{ expr: expr.of }] };
    case 'is':
      return { says: '=', inputs: [{ expr: expr.left }, { expr: expr.right }] };
    case 'if':
      return {
        says: 'choose',
        inputs: [
          { expr: expr.when, says: 'if' },
          { expr: expr.then, says: 'then' },
          { expr: expr.otherwise, says: 'else' },
        ],
      };
    case 'SR':
    case 'RS':
      return {
        says: expr.op,
        inputs: [
          { expr: expr.set, says: 'S' },
          { expr: expr.reset, says: 'R' },
        ],
      };
    case 'TON':
    case 'TOF':
    case 'TP':
      return { says: `${expr.op} ${expr.ms / 1000} s`, inputs: [{ expr: expr.in }] };
    case 'R_TRIG':
    case 'F_TRIG':
      return { says: expr.op === 'R_TRIG' ? 'rises' : 'falls', inputs: [{ expr: expr.in }] };
    default:
      return undefined;
  }
}
const leafOf = (expr: Expr): string =>
  expr.op === 'name'
    ? expr.name
    : expr.op === 'previous'
      ? `${expr.name} before`
      : expr.op === 'value'
        ? expr.value
        : expr.op;

const rowsOf = (expr: Expr): number => gateOf(expr)?.inputs.reduce((sum, one) => sum + rowsOf(one.expr), 0) ?? 1;
const depthOf = (expr: Expr): number => {
  const gate = gateOf(expr);
  return gate ? 1 + Math.max(...gate.inputs.map((one) => depthOf(one.expr))) : 0;
};

/** A condition as gates, drawn from the same tree as its text: names on the left, what comes of them on the right. */
export function GatesPicture({ name, expr }: { name: string; expr: Expr }) {
  const [rows, depth] = [rowsOf(expr), depthOf(expr)];
  const [width, height] = [LEAF + depth * STEP + 40 + name.length * 7, rows * ROW + 12];
  const draw = (part: Expr, x: number, top: number): { picture: ReactNode; y: number } => {
    const gate = gateOf(part);
    const own = rowsOf(part) * ROW;
    const y = top + own / 2;
    if (!gate)
      return {
        y,
        picture: (
          <text x={x - 6} y={y + 4} textAnchor="end" fontSize="12">
            {leafOf(part)}
          </text>
        ),
      };
    let at = top;
    const inputs = gate.inputs.map(({ expr: input, says }) => {
      const child = draw(input, x - STEP, at);
      at += rowsOf(input) * ROW;
      return { ...child, says, negated: part.op === 'not' };
    });
    const [left, boxTop, boxHeight] = [x - BOX - 8, top + 3, own - 6];
    return {
      y,
      picture: (
        <g>
          {inputs.map((input, i) => (
            <g key={i}>
              {input.picture}
              <path d={`M${x - STEP} ${input.y}H${left}`} stroke="var(--ink2)" />
              {input.says && gate.inputs.length > 1 && (
                <text x={left + 3} y={input.y + 4} fontSize="10">
                  {input.says}
                </text>
              )}
            </g>
          ))}
          <rect x={left} y={boxTop} width={BOX} height={boxHeight} fill="var(--raised)" stroke="var(--ink)" />
          <text
            x={left + BOX / 2}
            y={boxTop + 12}
            textAnchor="middle"
            fontSize={gate.says.length > 3 ? 10 : 12}
            fontWeight="650"
          >
            {gate.says}
          </text>
          {part.op === 'not' && <circle cx={x - 5} cy={y} r="3" fill="var(--sheet)" stroke="var(--ink)" />}
          <path d={`M${part.op === 'not' ? x - 2 : x - 8} ${y}H${x}`} stroke="var(--ink2)" />
        </g>
      ),
    };
  };
  const { picture, y } = draw(expr, LEAF + depth * STEP, 6);
  return (
    <svg
      className="drawing block"
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={`${name} as gates`}
    >
      {picture}
      <text x={LEAF + depth * STEP + 6} y={y + 4} fontSize="12" fontWeight="650">
        {name}
      </text>
    </svg>
  );
}
