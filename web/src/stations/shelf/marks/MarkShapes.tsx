import { memo } from 'react';
import { Mark } from '@crow/core/pdf/marks/mark';
import { Shape, shapesOf } from '@crow/core/pdf/marks/shapes';
import { css, MARK_FACE, measure } from './look';

/** What a mark looks like, as in the PDF; in points of the page. */
export const MarkShapes = memo(function MarkShapes({ mark }: { mark: Mark }) {
  return shapesOf(mark, measure).map((shape, at) => <Drawn key={at} shape={shape} />);
});

function Drawn({ shape }: { shape: Shape }) {
  switch (shape.is) {
    case 'wash':
    case 'fill': {
      const [x, y, width, height] = shape.box;
      const style = shape.is === 'wash' ? { mixBlendMode: 'multiply' as const } : undefined;
      return <rect x={x} y={y} width={width} height={height} fill={css(shape.colour)} style={style} />;
    }
    case 'frame': {
      const [x, y, width, height] = shape.box;
      return (
        <rect
          {...{ x, y, width, height }}
          fill="none"
          stroke={css(shape.colour)}
          strokeWidth={shape.width}
          strokeDasharray={shape.dash.join(' ')}
        />
      );
    }
    case 'line':
      return (
        <polyline
          points={shape.places.map((place) => place.join()).join(' ')}
          fill="none"
          stroke={css(shape.colour)}
          strokeWidth={shape.width}
          strokeDasharray={shape.dash.join(' ')}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      );
    case 'words':
      return (
        <text
          x={shape.at[0]}
          y={shape.at[1]}
          fontSize={shape.size}
          fontFamily={MARK_FACE}
          fontWeight={shape.bold ? 600 : 400}
          fill={css(shape.colour)}
          xmlSpace="preserve"
        >
          {shape.words}
        </text>
      );
  }
}
