import { type Centre, petals, ROSETTE_LOOKS, type RosetteState } from './rosette-geometry';

const PETAL = 'M12 8.3C8.9 6.7 7.3 3.3 12 .6 16.7 3.3 15.1 6.7 12 8.3Z';
const TINTED_BELOW = 36;

function Middle({ centre, line }: { centre: Centre; line: string }) {
  switch (centre) {
    case 'dot':
      return <circle cx="12" cy="12" r="2" fill={line} />;
    case 'ring':
      return <circle cx="12" cy="12" r="1.7" fill="none" stroke={line} strokeWidth="1.1" />;
    case 'complete':
      return <circle cx="12" cy="12" r="3.6" fill="var(--leaf)" stroke="var(--sheet)" strokeWidth="1.3" />;
    case 'cross':
      return <path d="M10.4 10.4l3.2 3.2M13.6 10.4l-3.2 3.2" stroke={line} strokeWidth="1.4" strokeLinecap="round" />;
    case 'hand':
      return <path d="M12 9.6V12l1.6 1.1" fill="none" stroke={line} strokeWidth="1.2" strokeLinecap="round" />;
    case 'bars':
      return <path d="M10.8 10.2v3.6M13.2 10.2v3.6" stroke={line} strokeWidth="1.4" strokeLinecap="round" />;
    case 'dash':
      return <path d="M10.2 12h3.6" stroke={line} strokeWidth="1.4" strokeLinecap="round" />;
    case 'none':
      return null;
  }
}

/** Six petals that fill clockwise with the share paid. Decoration: the state's word stands beside it. */
export function Rosette({ state, share = 0, size = 24 }: { state: RosetteState; share?: number; size?: number }) {
  const { line, centre, dashed, barred } = ROSETTE_LOOKS[state];
  const width = size >= TINTED_BELOW ? 0.9 : 1.15;
  if (state === 'Refund')
    return (
      <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden="true" className="block flex-none">
        <path
          d={PETAL}
          transform="rotate(62 12 12) translate(-6 3.4) scale(1.5)"
          fill="var(--sheet)"
          stroke={line}
          strokeWidth={width}
        />
      </svg>
    );
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden="true" className="block flex-none">
      {petals(share).map((filled, at) => {
        const turned = `rotate(${at * 60} 12 12)`;
        const begun = filled > 0 && filled < 1;
        const fill = filled === 1 ? 'var(--plum)' : begun && size < TINTED_BELOW ? 'var(--petal-mid)' : 'var(--sheet)';
        return (
          <g key={at}>
            <path
              d={PETAL}
              transform={turned}
              fill={fill}
              stroke={filled === 1 ? 'var(--plum)' : line}
              strokeWidth={width}
              strokeDasharray={dashed ? '1.5 1.3' : undefined}
            />
            {begun && size >= TINTED_BELOW ? (
              <path
                d={PETAL}
                transform={turned}
                fill="var(--plum)"
                style={{ clipPath: `circle(${3.8 + filled * 7.6}px at 12px 12px)` }}
              />
            ) : null}
          </g>
        );
      })}
      <Middle centre={centre} line={line} />
      {barred ? (
        <>
          <path d="M2.5 21.5l19-19" stroke="var(--sheet)" strokeWidth="3.6" />
          <path d="M2.5 21.5l19-19" stroke={line} strokeWidth="1.5" />
        </>
      ) : null}
    </svg>
  );
}
